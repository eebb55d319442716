import type { LayoutId, StepBody } from "../document/plan";

// Steps in short, for tests: on the group g1 of the pool p1 with its volume v1.

export const pull = (drive: string, by: string): StepBody => ({ kind: "replace-drive", drive, by, how: "pulled" });
export const attach = (drive: string, by: string): StepBody => ({ kind: "replace-drive", drive, by, how: "attached" });
export const widen = (...drives: string[]): StepBody => ({ kind: "widen-group", group: "g1", drives });
export const claim = (drive?: string): StepBody => ({ kind: "claim-space", group: "g1", ...(drive ? { drive } : {}) });
export const level = (layout: LayoutId, ...drives: string[]): StepBody => ({
  kind: "change-level",
  group: "g1",
  layout,
  drives,
});
export const rebalance: StepBody = { kind: "rebalance", group: "g1" };
export const parityChanged = (drive: string, by: string): StepBody => ({
  kind: "change-parity-drive",
  group: "g1",
  drive,
  by,
});
/** A new pool p2 of one group g2. */
export const create = (layout: LayoutId, ...drives: string[]) =>
  ({ kind: "create-group", pool: "p2", group: "g2", name: "N", layout, drives }) satisfies StepBody;
