import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Plan, Pool, Step, StepBody } from "../document/plan";
import type { Condition } from "../failures/condition";
import type { Hours } from "../time/hours";

/** What a rescue is worked out for. */
export interface RescueSetting {
  /** The document: its drives as they are, and what is planned already. */
  plan: Plan;
  pool: Pool;
  rules: BoxRules;
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
}

/**
 * What takes the place of a drive that is gone: a drive of the plan by its id, one that is bought, or none, where what
 * was on it is spread over the others.
 */
export type Instead = { by: string } | { buy: true } | { spread: true };

/** What the owner has chosen; what is left out is chosen by what costs least exposure. */
export interface RescueChoices {
  instead?: Readonly<Record<string, Instead>>;
  /** Whether a new drive is tested before it is filled. */
  test?: boolean;
  /** Where the files of a drive come back from: the parity (null) or a backup, by its id. */
  from?: Readonly<Record<string, string | null>>;
  /** Whether a drive that still works, but is suspect, is copied while it is in its bay, or pulled first. */
  attached?: boolean;
}

/** One thing to do, in its place. */
export interface RescueAct {
  /** What kind of thing it is, for a picture or a heading: a name in kebab-case. */
  what: string;
  /** What to do, a sentence or two. */
  does: string;
  why: string;
  /** Null where it takes no time worth saying. */
  hours: Hours | null;
  /** How many more drives can be lost meanwhile; −1 where data is lost. */
  redundancyDuring: number;
  /** For which share of its hours, from its beginning; all of them where nothing is said. */
  share?: number;
  /** The step that it is in the plan; none for what is done by hand or looked at. */
  step?: StepBody;
  /** The step of the plan, where it stands there already. */
  planned?: Step;
}

/** What has to be bought at least where no drive at hand fits. */
export interface ToBuy {
  leastBytes: Bytes;
  medium: Drive["medium"];
  bus: Drive["bus"];
  logicalSector: Drive["logicalSector"];
}

/** A question that the owner may answer, with what each answer costs. */
export interface RescueQuestion {
  id: "instead" | "test" | "from" | "attached";
  /** The drive that it is about. */
  drive: string | null;
  asks: string;
  options: {
    label: string;
    choices: RescueChoices;
    chosen: boolean;
    /** Expected hours until everything is whole again, and those in which one more failure would lose data. */
    hours: number;
    bareHours: number;
    /** What stands against it; null where it can be done. */
    cannot: string | null;
  }[];
}

/** What is to be done for a pool now, and what it means. */
export interface Rescue {
  pool: string;
  condition: Condition;
  readable: boolean | "partly";
  /** Whether the data is safe, and what of it: the first words. */
  first: string;
  /** What would take it, by name. */
  wouldTake: string;
  never: string[];
  acts: RescueAct[];
  /** Drives to buy that the steps name, as they are put into the plan. */
  buys: Drive[];
  buy: ToBuy | null;
  fits: string[];
  fitsNot: { drive: string; why: string }[];
  questions: RescueQuestion[];
  /** Expected hours until it is whole, and those in which one more failed drive would lose data. */
  hours: Hours;
  bareHours: number;
  /** What stands against a step of it; the course cannot be carried out as it is then. */
  blocks: string[];
  /** What comes back from the backups or the parity, as of when, and what does not; empty where nothing is lost. */
  comesBack: string[];
  /** What to do with the drive afterwards. */
  afterwards: string[];
}
