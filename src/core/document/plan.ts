// The plan document: the only state that is kept. It is never changed in place; a command makes the next one. Its shape
// is `schema/plan-1.json`; the types here are made from it, under the names by which the code calls them.
import type { Drive, RuleOverrides, Step } from "./generated/plan";

export type {
  ArrayFormat,
  Backup,
  Box,
  Bus,
  Contents,
  DataSet,
  DayRange,
  DoneBefore,
  DoneStep,
  Drive,
  FileSystem,
  Group,
  GroupOptions,
  Growth,
  HandsWindow,
  Health,
  HealthState,
  Helper,
  KeptArray,
  LayoutId,
  Lift,
  LogEntry,
  Medium,
  Mixing,
  ParitySchedule,
  Place,
  Plan,
  PlanCalendar,
  Pool,
  PricedDrive,
  Progress,
  Reading as LastReading,
  Rehearsal as KeptRehearsal,
  RulesChoice,
  RuleSetId,
  Sector,
  ShownSize,
  Step,
  StepUnderWay,
  Strike as KeptStrike,
  Volume,
  WorkKind,
  Worth,
} from "./generated/plan";

/** What a box can do and what it insists on. Every figure and every check takes them from here. */
export type BoxRules = Required<RuleOverrides>;

/** An answer to a rule. */
export type RuleOf<K extends RuleName> = BoxRules[K];

/** The name of a rule in plan documents. */
export type RuleName = keyof BoxRules;

/** A drive that has no id yet; the plan gives it one when it is added. */
export type NewDrive = Omit<Drive, "id" | "place">;

/** What of a drive can be edited. A field set to null is taken away. */
export type DriveChanges = { [K in keyof NewDrive]?: NewDrive[K] | (undefined extends NewDrive[K] ? null : never) };

export type StepKind = Step["kind"];

/** The step of one kind. */
export type StepOf<K extends StepKind> = Extract<Step, { kind: K }>;

type WithoutId<S> = S extends unknown ? Omit<S, "id"> : never;

/** A step that has no id yet; the plan gives it one when it is put in. */
export type StepBody = WithoutId<Step>;

type FieldOf<S> = S extends unknown ? keyof S : never;
type ChangeOf<S, F> = S extends unknown
  ? F extends keyof S
    ? Exclude<S[F], undefined> | (undefined extends S[F] ? null : never)
    : never
  : never;

/** What of a step can be edited, whatever its kind. A field set to null is taken away. */
export type StepChanges = { [F in Exclude<FieldOf<Step>, "id" | "kind">]?: ChangeOf<Step, F> };
