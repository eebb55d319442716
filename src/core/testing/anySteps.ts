import fc from "fast-check";
import type { Plan, Step, StepBody } from "../document/plan";
import { layouts } from "../layouts/registry";

const layoutId = fc.constantFrom(...layouts.map((layout) => layout.id));

/** Any step on a plan: sensible or not, for the ids that are there and some that are not. */
export function anyStepOn(plan: Plan): fc.Arbitrary<StepBody> {
  const drive = fc.constantFrom(...plan.drives.map((each) => each.id), "nowhere");
  const some = (most: number) => fc.uniqueArray(drive, { minLength: 1, maxLength: most });
  const group = fc.constantFrom("g1", "g2", "g9");
  const pool = fc.constantFrom("p1", "p2");
  const bytes = fc.integer({ min: 1, max: 3e13 });
  return fc.oneof<fc.Arbitrary<StepBody>[]>(
    fc.record({
      kind: fc.constant("create-group" as const),
      pool,
      group: fc.constant("g2"),
      name: fc.constant("New"),
      layout: layoutId,
      drives: some(4),
    }),
    fc.record({
      kind: fc.constant("add-group" as const),
      pool,
      group: fc.constant("g2"),
      layout: layoutId,
      drives: some(4),
    }),
    fc.record({
      kind: fc.constant("mirror-drive" as const),
      pool: fc.constant("p2"),
      group: fc.constant("g2"),
      name: fc.constant("M"),
      drive,
      by: drive,
    }),
    fc.record({
      kind: fc.constant("mirror-drive" as const),
      pool,
      group: fc.constantFrom("g1", "g2"),
      name: fc.constant("M"),
      drive,
      by: drive,
      also: fc.uniqueArray(drive, { maxLength: 2 }),
    }),
    fc.record({ kind: fc.constant("widen-group" as const), group, drives: some(2) }),
    fc.record({ kind: fc.constant("widen-group" as const), group, drives: some(2) }),
    fc.record({
      kind: fc.constant("replace-drive" as const),
      drive,
      by: drive,
      how: fc.constantFrom("attached" as const, "pulled" as const),
    }),
    fc.record({
      kind: fc.constant("replace-drive" as const),
      drive,
      by: drive,
      how: fc.constantFrom("attached" as const, "pulled" as const),
    }),
    fc.record({ kind: fc.constant("claim-space" as const), group }),
    fc.record({ kind: fc.constant("claim-space" as const), group, drive }),
    fc.record({
      kind: fc.constant("change-level" as const),
      group,
      layout: layoutId,
      drives: fc.uniqueArray(drive, { maxLength: 2 }),
      without: fc.uniqueArray(drive, { maxLength: 1 }),
    }),
    fc.record({ kind: fc.constant("set-spare" as const), pool, drive }),
    fc.record({ kind: fc.constant("remove-spare" as const), drive }),
    fc.record({ kind: fc.constant("remove-drive" as const), drive }),
    fc.record({ kind: fc.constant("grow-volume" as const), pool, volume: fc.constant("v1") }),
    fc.record({ kind: fc.constant("grow-volume" as const), pool, volume: fc.constant("v1"), bytes }),
    fc.record({ kind: fc.constant("shrink-volume" as const), pool, volume: fc.constant("v1"), bytes }),
    fc.record({ kind: fc.constant("grow-file-system" as const), pool, volume: fc.constant("v1") }),
    fc.record({ kind: fc.constant("test-drive" as const), drive }),
    fc.record({ kind: fc.constant("wipe-drive" as const), drive }),
    fc.record({ kind: fc.constant("back-up" as const), pool, to: fc.constant("elsewhere") }),
    fc.record({ kind: fc.constant("verify" as const), pool }),
    fc.record({ kind: fc.constant("change-parity-drive" as const), group, drive, by: drive }),
    fc.record({ kind: fc.constant("sync" as const), pool }),
    fc.record({ kind: fc.constant("rebalance" as const), group }),
    fc.record({ kind: fc.constant("rebuild-from-backup" as const), pool, layout: layoutId, drives: some(5) }),
    fc.record({
      kind: fc.constant("rebuild-from-backup" as const),
      pool,
      layout: layoutId,
      drives: some(5),
      box: fc.record({
        name: fc.constant("Other"),
        bays: fc.integer({ min: 1, max: 8 }),
        rules: fc.record({
          set: fc.constantFrom(
            "classic-raid" as const,
            "hybrid-box" as const,
            "linux-host" as const,
            "chunk-copies" as const,
          ),
        }),
      }),
    }),
  );
}

/** The plan with steps, ids given in order. */
export const numbered = (plan: Plan, bodies: readonly StepBody[]): Plan => ({
  ...plan,
  steps: bodies.map((body, i): Step => ({ ...body, id: `s${i + 1}` }) as Step),
});
