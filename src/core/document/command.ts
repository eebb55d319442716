import type {
  Backup,
  DataSet,
  Drive,
  DriveChanges,
  GroupOptions,
  Helper,
  LastReading,
  LayoutId,
  KeptRehearsal,
  LogEntry,
  NewDrive,
  ParitySchedule,
  Plan,
  Place,
  PlanCalendar,
  PricedDrive,
  RulesChoice,
  StepBody,
  ShownSize,
  StepChanges,
  Volume,
  WorkKind,
} from "./plan";
/** A step done away from Cortijo: when, what the box showed then, and what stood on the labels of new drives. */
export interface RecordedStep {
  step: string;
  start: string;
  /** Nothing of one that is still under way. */
  end?: string;
  seen?: string;
  serials?: { drive: string; serial: string }[];
}

/** One act of the user, as a value: it can be kept, replayed on a newer plan, and undone. */
export type Command =
  | { kind: "rename-plan"; name: string }
  | { kind: "change-box"; name?: string; bays?: number; rules?: RulesChoice; ups?: boolean }
  | { kind: "add-drives"; drives: NewDrive[] }
  | { kind: "edit-drive"; drive: string; changes: DriveChanges }
  /** Several drives at once, for instance from what they report of themselves; new ones go to the shelf. */
  | { kind: "update-drives"; edits: { drive: string; changes: DriveChanges }[]; added: NewDrive[] }
  | { kind: "remove-drives"; drives: string[] }
  /** What has become of drives: they have failed, are not in the box, or (null) work and are back. */
  | { kind: "set-drive-state"; drives: string[]; state: "failed" | "missing" | null; since?: string }
  /** When the parity of a pool is written; null where nothing is known of it. */
  | { kind: "set-parity-schedule"; pool: string; schedule: ParitySchedule | null }
  | { kind: "move-drive"; drive: string; to: Place }
  /** Puts drives from the shelf into free bays, lowest number first. */
  | { kind: "seat-drives"; drives: string[] }
  | { kind: "make-group"; drives: string[]; layout: LayoutId; pool: string | null }
  /** A new pool of several groups of one layout. */
  | { kind: "make-groups"; groups: string[][]; layout: LayoutId }
  /**
   * Gives a pool these groups instead of those it has, or makes a new one; drives of it that are in none are left out.
   */
  | { kind: "lay-out-pool"; pool: string | null; groups: { layout: LayoutId; drives: string[] }[] }
  /** The prices that the plan reckons with; an empty list takes them away. */
  | { kind: "set-prices"; prices: PricedDrive[] }
  /** The currency that amounts are in, by its three letters; null where it is not to be said. */
  | { kind: "set-currency"; currency: string | null }
  /** Puts steps in before one, after one, or at the end. */
  | { kind: "insert-steps"; before?: string; after?: string; steps: StepBody[] }
  /** The same, with the drives to buy that the steps name; the plan gets a calendar if it has none and one is given. */
  | {
      kind: "insert-sequence";
      name: string;
      before?: string;
      after?: string;
      steps: StepBody[];
      drives: Drive[];
      calendar?: PlanCalendar;
    }
  /** The same in the place of steps, and of drives that were to be bought for them, by their ids. */
  | {
      kind: "plan-instead";
      goes: readonly string[];
      name: string;
      steps: StepBody[];
      drives: Drive[];
      calendar?: PlanCalendar;
    }
  /** When the plan is carried out; null takes the calendar away. */
  | { kind: "set-calendar"; calendar: PlanCalendar | null }
  /** A data set added, or changed where the id is there. What its volume holds changes with it. */
  | { kind: "put-data-set"; dataSet: Omit<DataSet, "id"> & { id?: string } }
  | { kind: "remove-data-set"; dataSet: string }
  /** A backup added, or changed where the id is there. */
  | { kind: "put-backup"; backup: Omit<Backup, "id"> & { id?: string } }
  | { kind: "remove-backup"; backup: string }
  /** Keeps how the box was when it was read; with `as`, the plan begins there, and the steps in `done` are past. */
  | {
      kind: "take-reading";
      reading: LastReading;
      as?: Pick<Plan, "box" | "drives" | "pools" | "steps">;
      done?: string[];
    }
  /** A step begun at the box; `at` as an instant, `unit` for the words that are kept of it. */
  | { kind: "start-step"; step: string; at: string; unit?: "TB" | "TiB" }
  /** How far the box said that a step was, from 0 to 1. */
  | { kind: "take-progress"; step: string; at: string; share: number }
  /** A step done: it becomes history, and the plan begins after it. One that was not begun took no time. */
  | { kind: "end-step"; step: string; at: string; shown?: ShownSize; unit?: "TB" | "TiB" }
  /** A step that was begun, or refused, and did not come to its end; it stays in the plan. */
  | { kind: "stop-step"; step: string; at: string; why?: string; unit?: "TB" | "TiB" }
  /** Steps done at the box, all or none, as a sheet brings them back; one without an end is under way. */
  | { kind: "record-steps"; steps: RecordedStep[]; unit?: "TB" | "TiB" }
  /** Corrects a step under way, or an entry of history or log, by its id. */
  | { kind: "correct-record"; record: string; changes: { start?: string; end?: string; leftOut?: boolean } }
  | { kind: "add-log-entries"; entries: Omit<LogEntry, "id">[] }
  /** Takes entries out of history and log, by their ids. */
  | { kind: "remove-records"; records: string[] }
  /** Whether the hours of a kind of work stay as the usual rates give them. */
  | { kind: "set-rates-only"; work: WorkKind; on: boolean }
  /** A rehearsal kept with the plan, or another name for one that is. */
  | { kind: "keep-rehearsal"; rehearsal: Omit<KeptRehearsal, "id"> & { id?: string } }
  | { kind: "remove-rehearsal"; rehearsal: string }
  /** What the chance of loss is worked out with; null for as usual. */
  | { kind: "set-chance"; chance: Plan["chance"] | null }
  /** The box as a rehearsal has it just after its first mishap, with the steps of the way out. */
  | { kind: "take-way-out"; as: Pick<Plan, "drives" | "pools" | "steps"> }
  | { kind: "edit-step"; step: string; changes: StepChanges }
  /** Several steps in the place of one. */
  | { kind: "replace-step"; step: string; by: StepBody[] }
  | { kind: "remove-steps"; steps: string[] }
  | { kind: "duplicate-step"; step: string }
  /** Moves a step to a place in the list, counted from 0. */
  | { kind: "move-step"; step: string; to: number }
  | { kind: "change-layout"; group: string; layout: LayoutId }
  | { kind: "add-to-group"; group: string; drives: string[]; layout?: LayoutId }
  | { kind: "leave-group"; drives: string[] }
  | { kind: "take-apart"; group: string }
  | { kind: "rename-pool"; pool: string; name: string }
  | { kind: "set-options"; group: string; options: GroupOptions }
  /** Makes drives hot spares of a pool, or of one group of it; `leave-group` ends it. */
  | { kind: "set-spare"; pool: string; group?: string; drives: string[] }
  /** Makes drives a cache or log beside a pool; `leave-group` ends it. */
  | { kind: "set-helper"; pool: string; drives: string[]; role: Helper["role"] }
  /** Makes a pool the landing place of another, or ends it. */
  | { kind: "set-landing"; pool: string; landsFor: string | null }
  | { kind: "add-volume"; pool: string; volume: Omit<Volume, "id"> }
  | { kind: "edit-volume"; pool: string; volume: string; changes: Partial<Omit<Volume, "id">> }
  | { kind: "remove-volume"; pool: string; volume: string };
