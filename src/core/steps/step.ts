import type { Bytes } from "../bytes/bytes";
import type { Box, Lift } from "../document/plan";
import type { LayoutId } from "../layouts/layout";

/** What every step has. */
interface StepBase {
  id: string;
  /** Passed over, but kept. */
  disabled?: boolean;
  /** Whether it begins with the step before it, instead of after it. */
  together?: boolean;
  /** Waits for this day, as YYYY-MM-DD. */
  notBefore?: string;
  /** The owner has said in writing that it may go on without a backup of precious data. */
  lifted?: Lift;
}

/** One change to the box, as the plan document keeps it. Ids are those of drives, groups, pools and volumes. */
export type Step = StepBase &
  (
    | { kind: "create-group"; pool: string; group: string; name: string; layout: LayoutId; drives: string[] }
    | { kind: "add-group"; pool: string; group: string; layout: LayoutId; drives: string[] }
    /** `also` are further drives that hold data, mirrored onto the same one behind the first. */
    | { kind: "mirror-drive"; pool: string; group: string; name: string; drive: string; by: string; also?: string[] }
    | { kind: "widen-group"; group: string; drives: string[] }
    | { kind: "replace-drive"; drive: string; by: string; how: "attached" | "pulled" }
    | { kind: "claim-space"; group: string; drive?: string }
    /** `drives` join with it, `without` leave with it. */
    | { kind: "change-level"; group: string; layout: LayoutId; drives: string[]; without?: string[] }
    | { kind: "set-spare"; pool: string; drive: string }
    | { kind: "remove-spare"; drive: string }
    | { kind: "remove-drive"; drive: string }
    /** Without `bytes` to all that the pool has. */
    | { kind: "grow-volume"; pool: string; volume: string; bytes?: Bytes }
    | { kind: "shrink-volume"; pool: string; volume: string; bytes: Bytes }
    | { kind: "grow-file-system"; pool: string; volume: string }
    | { kind: "test-drive"; drive: string }
    | { kind: "wipe-drive"; drive: string }
    /** `to` is the id of a backup of the plan, or says in words where to; `rate` in bytes per second, of the way there. */
    | { kind: "back-up"; pool: string; to: string; rate?: number }
    | { kind: "verify"; pool: string }
    | { kind: "change-parity-drive"; group: string; drive: string; by: string }
    | { kind: "sync"; pool: string }
    | { kind: "rebalance"; group: string }
    /** In another box where `box` is given. */
    | { kind: "rebuild-from-backup"; pool: string; layout: LayoutId; drives: string[]; box?: Box }
  );

export type StepKind = Step["kind"];

/** The step of one kind. */
export type StepOf<K extends StepKind> = Extract<Step, { kind: K }>;

type WithoutId<S> = S extends unknown ? Omit<S, "id"> : never;

/** A step that has no id yet; the plan gives it one when it is put in. */
export type StepBody = WithoutId<Step>;

/** What of a step can be edited. */
export type StepChanges = {
  disabled?: boolean;
  together?: boolean;
  notBefore?: string | null;
  lifted?: Lift | null;
  how?: "attached" | "pulled";
  bytes?: Bytes;
  drives?: string[];
  drive?: string;
  by?: string;
  layout?: LayoutId;
  to?: string;
};
