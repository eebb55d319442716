import type { Band } from "../bands/band";
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
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { costOfNewSpace } from "./newSpace";
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
  // It is filled as far up as the other was; what the group gains then, in a box that claims by itself, comes after.
  const bands = standingIn(bandsOfGroup(plan, owner.group, rules), step);
  const gone = goneIn(after.plan);
  const there = drivesOf(after.plan, then.group.drives).filter(({ id }) => !gone.has(id));
  const used = usedShare(owner.pool, dataOfPool(plan, owner.pool, rules));
  const next = there.filter((each) => each.id === step.by);
  const [rebuild] = rebuildsOf(bands, there, rules, used, next);
  const reads = readFor(bands, step.by, gone, rules.rebuilding === "used-only" ? used : 1);
  const more = costOfNewSpace(plan, after.plan, owner.group.id, rules, { [step.by]: step.drive });
  const filling = rebuild?.hours ?? noCost({}).hours;
  const hours = addHours(filling, more?.hours ?? NO_HOURS);
  return noCost({
    ...(more && hours.expected > 0 ? { missingShare: filling.expected / hours.expected } : {}),
    hours,
    erased: [step.by],
    work: together(
      [
        ...[...reads].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
        { drive: step.by, reads: 0, writes: rebuild?.writes ?? 0 },
      ],
      more?.work ?? [],
    ),
    online: "slower",
    missing: [step.drive],
    unready: [step.by],
  });
}

/** Two pieces of work on the same drives, one after the other. */
function together(first: StepCost["work"], second: StepCost["work"]): StepCost["work"] {
  const sums = new Map(first.map((each) => [each.drive, { ...each }]));
  for (const { drive, reads, writes } of second) {
    const sum = sums.get(drive) ?? { drive, reads: 0, writes: 0 };
    sums.set(drive, { drive, reads: sum.reads + reads, writes: sum.writes + writes });
  }
  return [...sums.values()];
}

/** What is read of each of the others to fill a drive, in bytes. */
function readFor(bands: readonly Band[], by: string, gone: ReadonlySet<string>, share: number): Map<string, number> {
  const reads = new Map<string, number>();
  for (const band of bands.filter((each) => isRedundant(each) && each.members.some(({ drive }) => drive === by)))
    for (const { drive, length } of band.members)
      if (drive !== by && !gone.has(drive)) reads.set(drive, (reads.get(drive) ?? 0) + Math.round(length * share));
  return reads;
}

/** Bands with one drive in the place of another. */
const standingIn = (bands: readonly Band[], { drive, by }: { drive: string; by: string }): Band[] =>
  bands.map((band) => ({
    ...band,
    members: band.members.map((member) => (member.drive === drive ? { ...member, drive: by } : member)),
  }));
