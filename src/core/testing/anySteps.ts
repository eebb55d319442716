import fc from "fast-check";
import type { Plan, Step, StepBody, StepKind, StepOf } from "../document/plan";
import { layouts } from "../layouts/registry";

const layoutId = fc.constantFrom(...layouts.map((layout) => layout.id));

/** A step of a kind, with what its fields can be. */
const some = <K extends StepKind>(
  kind: K,
  fields: { [F in Exclude<keyof StepOf<K>, "id" | "kind">]?: fc.Arbitrary<StepOf<K>[F]> },
) => fc.record({ kind: fc.constant(kind), ...fields }) as unknown as fc.Arbitrary<StepBody>;

/** Any step on a plan: sensible or not, for the ids that are there and some that are not. */
export function anyStepOn(plan: Plan): fc.Arbitrary<StepBody> {
  const drive = fc.constantFrom(...plan.drives.map((each) => each.id), "nowhere");
  const drives = (most: number, least = 1) => fc.uniqueArray(drive, { minLength: least, maxLength: most });
  const group = fc.constantFrom("g1", "g2", "g9");
  const pool = fc.constantFrom("p1", "p2");
  const bytes = fc.integer({ min: 1, max: 3e13 });
  const volume = fc.constant("v1");
  const name = fc.constant("New");
  const how = fc.constantFrom("attached" as const, "pulled" as const);
  const sets = ["classic-raid", "hybrid-box", "linux-host", "chunk-copies"] as const;
  const box = fc.record({
    name: fc.constant("Other"),
    bays: fc.integer({ min: 1, max: 8 }),
    rules: fc.record({ set: fc.constantFrom(...sets) }),
  });
  return fc.oneof(
    some("create-group", { pool, group: fc.constant("g2"), name, layout: layoutId, drives: drives(4) }),
    some("add-group", { pool, group: fc.constant("g2"), layout: layoutId, drives: drives(4) }),
    some("mirror-drive", { pool: fc.constant("p2"), group: fc.constant("g2"), name, drive, by: drive }),
    some("mirror-drive", { pool, group: fc.constantFrom("g1", "g2"), name, drive, by: drive, also: drives(2, 0) }),
    some("widen-group", { group, drives: drives(2) }),
    some("widen-group", { group, drives: drives(2) }),
    some("replace-drive", { drive, by: drive, how }),
    some("replace-drive", { drive, by: drive, how }),
    some("claim-space", { group }),
    some("claim-space", { group, drive }),
    some("change-level", { group, layout: layoutId, drives: drives(2, 0), without: drives(1, 0) }),
    some("set-spare", { pool, drive }),
    some("remove-spare", { drive }),
    some("remove-drive", { drive }),
    some("grow-volume", { pool, volume }),
    some("grow-volume", { pool, volume, bytes }),
    some("shrink-file-system", { drive, bytes }),
    some("shrink-volume", { pool, volume, bytes }),
    some("grow-file-system", { pool, volume }),
    some("test-drive", { drive }),
    some("wipe-drive", { drive }),
    some("back-up", { pool, to: fc.constant("elsewhere") }),
    some("verify", { pool }),
    some("change-parity-drive", { group, drive, by: drive }),
    some("update-parity", { pool }),
    some("check-parity", { pool }),
    some("pause-schedule", { pool }),
    some("resume-schedule", { pool }),
    some("rebuild", { group, drive, by: drive }),
    some("rebuild", { group, drive, by: drive }),
    some("restore-drive", { group, drive, by: drive }),
    some("restore-drive", { group, drive, by: drive, from: fc.constantFrom("b1", "b9") }),
    some("rebalance", { group }),
    some("rebuild-from-backup", { pool, layout: layoutId, drives: drives(5) }),
    some("rebuild-from-backup", { pool, layout: layoutId, drives: drives(5), box }),
  );
}

/** The plan with steps, ids given in order. */
export const numbered = (plan: Plan, bodies: readonly StepBody[]): Plan => ({
  ...plan,
  steps: bodies.map((body, i): Step => ({ ...body, id: `s${i + 1}` }) as Step),
});
