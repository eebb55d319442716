import type { BoxState } from "../box/state";
import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Plan, Step, StepKind, StepOf, WorkKind } from "../document/plan";
import type { Finding } from "../findings/finding";
import { type Hours, NO_HOURS } from "../time/hours";
import type { StepMenu } from "./stepMenu";
import type { TellNames } from "./tellNames";

/** What a step is seen with. */
export interface StepSetting {
  rules: BoxRules;
  /** The units in which findings and sentences speak. */
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
  /** Drives that a step which still runs has yet to fill. */
  unready?: readonly string[];
}

/** A step that still runs when another begins. */
export interface Running {
  step: Step;
  cost: StepCost;
}

/** The work that a box does for a step by itself. */
export interface BoxWork {
  kind: WorkKind;
  /** Expected hours by the usual rates. */
  byRates: number;
  /** The hours that are expected, by the box's own times where there are any. */
  hours: Hours;
}

/** What a step takes, by its own kind; the walk adds what follows from the states before and after it. */
export interface StepCost {
  hours: Hours;
  /** What of the hours the box works by itself, hands and clicks left out. */
  boxWork?: BoxWork;
  /** Drives whose content is overwritten. */
  erased: string[];
  /** What is read from and written to each drive that takes part, in bytes. */
  work: { drive: string; reads: Bytes; writes: Bytes }[];
  /** Whether the pool can be used meanwhile, but for the minutes in which drives are changed. */
  online: "online" | "slower" | "offline";
  /** For how long it cannot be used: all the while, for the minutes in which drives are changed, or never. */
  offline: Hours;
  /** How often the box is off, or its pool stopped, to change drives. */
  swaps: number;
  /** Drives that are missing from the pool while it runs. */
  missing: string[];
  /** For which share of its hours they are, from its beginning; all of them where nothing is said. */
  missingShare?: number;
  /** Drives that are there, but hold nothing until it has ended. */
  unready: string[];
  /** A new group that is being filled for the first time: until then the loss of any of its drives loses data. */
  filling?: string;
  /** A pool of which, while it runs, a backup is the only copy. */
  onlyInBackup?: string;
  /** Whether there is a step back that loses nothing. */
  undoable: boolean;
}

/** What a step needs of its owner to begin: a hand at the box, or a few clicks at the screen. */
export type Attention = "box" | "screen";

/** How drives are named in the labels of steps. */
export interface StepNames {
  unit: UnitFamily;
  /** "4 TB" */
  size: (drive: string) => string;
  /** "4 TB in bay 1" */
  place: (drive: string) => string;
  /** "4 TB + 8 TB" */
  list: (drives: readonly string[]) => string;
}

/** One kind of step: what it is, and pure functions of the state. */
export interface StepModule<K extends StepKind> {
  kind: K;
  /** For menus and lists. */
  name: string;
  /** A step in a few words for lists, seen from the box before it. */
  label: (step: StepOf<K>, names: StepNames) => string;
  /** Where it stands in menus. */
  menu: StepMenu;
  /** The kind of work that the box does for it, by which its hours are learned; null for what takes only hands. */
  boxWork: (step: StepOf<K>) => WorkKind | null;
  /** What is told to the box, each an act, once the drives are in their places. */
  tells: (step: StepOf<K>, names: TellNames) => string[];
  /** Whether drives that go out are pulled when the work has ended, and not before it begins. */
  pullsLast?: (step: StepOf<K>) => boolean;
  /** The drives that it takes in hand: those still to be bought are waited for, and those on the shelf are fetched. */
  handles: (step: StepOf<K>) => readonly string[];
  /**
   * What it needs of its owner to begin, where that does not follow from the drives that it moves; null where it does.
   */
  attention?: (step: StepOf<K>, before: Plan) => Attention | null;
  /** Whether all that is stored is rewritten, so that precious data needs a backup first. */
  rewrites?: true;
  /**
   * As what all is rewritten, where a power cut meanwhile may cost data: a change of level that keeps the size, stopped
   * half-way, ended in wrong data; a widening went on where it was.
   */
  rewriteAs?: "level-change" | "widening";
  /** Whether it may begin while the step before it rewrites or rebuilds: it works on drives that do nothing else. */
  besideOthers?: true;
  /** Whether it may begin while a certain other step still runs that would otherwise have to end first. */
  mayRunBeside?: (step: StepOf<K>, running: Running, plan: Plan) => boolean;
  /** Whether others may begin while it runs. */
  letsOthersBegin?: true;
  /** Whether a size of its own is typed for it, and whether it can do without. */
  asksSize?: "optional" | "required";
  /**
   * How often drives go in or out for it, where that is not once for any change of bays: a box that has to be off to
   * change a drive is off so often.
   */
  swaps?: (step: StepOf<K>, before: Plan) => number;
  /** Whether the box's preference for the work or its users moves how fast it goes. */
  paced?: true;
  /** The drive to which it is the answer where that one is gone: it puts another in its place, or leaves it out. */
  answers?: (step: StepOf<K>) => string;
  /** How much stands against it while a drive of its pool is gone; nothing where it may be done then. */
  whileDegraded?: "warn" | "block";
  /** Whether it brings a pool back of which nothing can be read. */
  restoresLost?: true;
  /**
   * What to do if a drive of its pool fails while it runs, and what becomes of it then; nothing where it is as at any
   * other time. By what real storage code did when a drive was lost meanwhile.
   */
  ifADriveFails?: (step: StepOf<K>, before: Plan) => string;
  /** Whether usable space may be less after it. */
  mayLower?: true;
  /** What stands against it; with a *block* it is not carried out. */
  check: (state: BoxState, step: StepOf<K>, setting: StepSetting) => Finding[];
  /** The next state, for a step that nothing blocks. */
  apply: (state: BoxState, step: StepOf<K>, setting: StepSetting) => BoxState;
  cost: (before: BoxState, after: BoxState, step: StepOf<K>, setting: StepSetting) => StepCost;
  /** What it does and why it is needed, for the owner, each a sentence. */
  say: (state: BoxState, step: StepOf<K>, setting: StepSetting) => { does: string; why: string };
}

/** What has no cost but a few minutes of the owner's. */
export const A_FEW_MINUTES: Hours = { low: 0.05, expected: 0.1, high: 0.5 };

/** A cost with nothing in it, to be filled in. */
export const noCost = (more: Partial<StepCost>): StepCost => ({
  hours: A_FEW_MINUTES,
  erased: [],
  work: [],
  online: "online",
  offline: more.online === "offline" ? (more.hours ?? A_FEW_MINUTES) : NO_HOURS,
  swaps: 0,
  missing: [],
  unready: [],
  undoable: true,
  ...more,
});

/** For what may begin while a new group is filled for the first time: its space is there at once. */
export const besideFilling = (_step: unknown, { cost }: Running): boolean => cost.filling !== undefined;

/** A finding about the step itself. */
export function against(
  severity: Finding["severity"],
  code: string,
  message: string,
  drives: string[] = [],
  mend?: Finding["mend"],
): Finding {
  return { code, severity, message, drives, ...(mend ? { mend } : {}) };
}
