import { type Capacities } from "../box/capacities";
import type { BoxState } from "../box/state";
import { type UnitFamily } from "../bytes/formatBytes";
import type { Plan, Step } from "../document/plan";
import { type Finding } from "../findings/finding";
import { type StepCost } from "../steps/stepModule";

/** How exposed the data of a pool is while a step runs. */
export interface Exposure {
  pool: string;
  /** How many drives can be lost, whichever, with nothing lost; −1 where data is lost already. */
  redundancy: number;
  /** The same before the step. */
  usual: number;
  /** For which share of the step's hours, from its beginning; all of them where nothing is said. */
  share?: number;
}

/** What a step of the plan does, and the box after it. */
export interface WalkedStep {
  step: Step;
  /** Whether it was carried out; a step that something blocks, or that is disabled, changes nothing. */
  done: boolean;
  findings: Finding[];
  cost: StepCost;
  exposure: Exposure[];
  /** Expected hours from the beginning of the plan. */
  from: number;
  to: number;
  does: string;
  why: string;
}

/** The box at one moment: before the first step, or after a step. */
export interface WalkedMoment {
  after: string | null;
  state: BoxState;
  capacities: Capacities;
  /** How many failed drives each pool survives, in the order of the pools. */
  tolerance: number[];
  /** What led here; null for the beginning. */
  walked: WalkedStep | null;
}

/** A plan walked from its beginning to its end. */
export interface Walk {
  plan: Plan;
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
  /** One more than there are steps. */
  moments: WalkedMoment[];
}
