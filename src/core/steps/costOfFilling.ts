import { isRedundant } from "../bands/isRedundant";
import { dataOfPool, bandsOfGroup } from "../box/figures";
import { usedShare } from "../box/capacities";
import { drivesOf } from "../box/find";
import { goneIn } from "../box/gone";
import { groupOfDrive } from "../box/members";
import type { BoxState } from "../box/state";
import { slowestRate } from "../box/passHours";
import type { BoxRules, Group, Plan, Pool } from "../document/plan";
import { REBUILD_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import { rebuildsOf } from "../speeds/rebuild";
import { hoursFor } from "../time/hours";
import { workedThrough } from "./workedThrough";
import { A_FEW_MINUTES, noCost, type StepCost, type StepSetting } from "./stepModule";

/** The chunks that were on a drive, made again from those on the others, which are read as far as they hold chunks. */
function costOfChunks(
  before: Plan,
  after: Plan,
  { pool, group }: { pool: Pool; group: Group },
  step: { drive: string; by: string },
  rules: BoxRules,
): StepCost {
  const chunks = workedThrough(before, pool, group, rules);
  const bytes = chunks.get(step.drive) ?? 0;
  const gone = goneIn(after);
  const others = [...chunks].filter(([drive]) => drive !== step.drive && !gone.has(drive));
  const there = others.reduce((sum, [, each]) => sum + each, 0);
  // A copy is read once; under parity as many chunks as a stripe has data.
  const { data, parity } = layoutOf(group.layout).stripe(group.options ?? {});
  const read = bytes * (parity > 0 ? Number(data) : 1);
  const slowest = slowestRate(drivesOf(after, [...others.map(([drive]) => drive), step.by]));
  return noCost({
    hours: bytes > 0 ? hoursFor(bytes, workRate(slowest, REBUILD_SHARE, rules, parity > 0)) : A_FEW_MINUTES,
    erased: [step.by],
    work: [
      ...others.map(([drive, each]) => ({ drive, reads: Math.round((read * each) / Math.max(1, there)), writes: 0 })),
      { drive: step.by, reads: 0, writes: bytes },
    ],
    online: "slower",
    missing: [step.drive],
    unready: [step.by],
  });
}

/**
 * What it costs to fill a drive of a group from the others, in the place of one that is not there: what was on that one
 * is worked out again from all that are left.
 *
 * @param step `drive`, the one that is not there, and `by`, the one that is filled
 */
export function costOfFilling(
  { plan }: BoxState,
  after: BoxState,
  step: { drive: string; by: string },
  { rules }: Pick<StepSetting, "rules">,
): StepCost {
  const owner = groupOfDrive(plan, step.drive);
  const then = groupOfDrive(after.plan, step.by);
  if (!owner || !then) return noCost({});
  if (layoutOf(then.group.layout).chunked) return costOfChunks(plan, after.plan, owner, step, rules);
  const bands = bandsOfGroup(after.plan, then.group, rules);
  const gone = goneIn(after.plan);
  const there = drivesOf(after.plan, then.group.drives).filter(({ id }) => !gone.has(id));
  const used = usedShare(then.pool, dataOfPool(after.plan, then.pool, rules));
  const next = there.filter((each) => each.id === step.by);
  const [rebuild] = rebuildsOf(bands, there, rules, used, next);
  const share = rules.rebuilding === "used-only" ? used : 1;
  const reads = new Map<string, number>();
  for (const band of bands.filter((each) => isRedundant(each) && each.members.some(({ drive }) => drive === step.by)))
    for (const { drive, length } of band.members)
      if (drive !== step.by && !gone.has(drive)) reads.set(drive, (reads.get(drive) ?? 0) + Math.round(length * share));
  return noCost({
    hours: rebuild?.hours ?? noCost({}).hours,
    erased: [step.by],
    work: [
      ...[...reads].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
      { drive: step.by, reads: 0, writes: rebuild?.writes ?? 0 },
    ],
    online: "slower",
    missing: [step.drive],
    unready: [step.by],
  });
}
