import { drivesOf } from "../box/find";
import { isAvailable } from "../box/members";
import type { Bytes } from "../bytes/bytes";
import { nominalBytes } from "../bytes/nominalBytes";
import { destinationOf } from "../data/destination";
import type { Drive, Group, Plan, Pool, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { layoutOf } from "../layouts/registry";
import { driveToBuy } from "../walk/driveToBuy";
import { freeIds } from "../records/freeId";
import type { SequenceSetting, Variants, Wish } from "./sequence";

// What the sequences have in common.

/** The sizes that drives are sold in, in bytes. */
export const SOLD_SIZES: readonly Bytes[] = [1, 2, 3, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24].map((tb) =>
  nominalBytes(tb * 1000),
);

/** The smallest size that is sold and at least as large; the asked one where none is. */
export const soldFrom = (bytes: Bytes): Bytes => SOLD_SIZES.find((size) => size >= bytes) ?? bytes;

export const CAREFUL: Variants = {
  attached: false,
  together: false,
  spareFirst: false,
  test: true,
  backUp: true,
  verify: true,
  grow: true,
};

/** A wish with nothing in it but the usual care. */
export const emptyWish = ({ plan }: SequenceSetting): Wish => {
  const [pool] = plan.pools;
  return {
    pool: pool?.id ?? "",
    group: pool?.groups[0]?.id ?? "",
    drives: [],
    bytes: 0,
    by: null,
    count: 1,
    layout: pool?.groups[0]?.layout ?? "raid1",
    box: null,
    variants: CAREFUL,
  };
};

export function ownerOfGroup(plan: Plan, id: string): { pool: Pool; group: Group; members: Drive[] } | null {
  for (const pool of plan.pools) {
    const group = pool.groups.find((each) => each.id === id);
    if (group) return { pool, group, members: drivesOf(plan, group.drives) };
  }
  return null;
}

export const groupsOf = (plan: Plan): { pool: Pool; group: Group }[] =>
  plan.pools.flatMap((pool) => pool.groups.map((group) => ({ pool, group })));

export const freeBaysOf = (plan: Plan): number =>
  plan.box.bays - plan.drives.filter((drive) => bayOf(drive) !== null).length;

/** The drives that the plan's steps name: they are spoken for. */
const spokenFor = ({ document }: SequenceSetting): Set<string> =>
  new Set(
    document.steps.flatMap((step) => [
      ...("drive" in step && step.drive !== undefined ? [step.drive] : []),
      ...("by" in step ? [step.by] : []),
      ...("drives" in step ? step.drives : []),
      ...("also" in step ? (step.also ?? []) : []),
    ]),
  );

/**
 * Drives on the shelf or in a bay that no pool and no planned step has, in good health, with nothing on them, and at
 * least
 * so large: the smallest first.
 */
export function readyDrives(setting: SequenceSetting, least: Bytes): Drive[] {
  const { plan } = setting;
  const taken = spokenFor(setting);
  return plan.drives
    .filter(
      (drive) =>
        isAvailable(plan, drive.id) &&
        !taken.has(drive.id) &&
        drive.health.state === "good" &&
        !drive.contents &&
        drive.bytes >= least,
    )
    .sort((a, b) => a.bytes - b.bytes);
}

/** Drives for a sequence: those that are there first, then some to be bought. */
export interface Supply {
  drives: Drive[];
  buys: Drive[];
}

/**
 * So many drives of at least a size: free ones that are there, and for the rest drives to be bought, of the kind of a
 * pattern.
 */
export function supply(
  setting: SequenceSetting,
  count: number,
  bytes: Bytes,
  pattern: Drive | undefined,
  taken: readonly string[] = [],
  already: readonly Drive[] = [],
): Supply {
  const there = readyDrives(setting, bytes)
    .filter((drive) => !taken.includes(drive.id))
    .slice(0, count);
  const next = freeIds(
    "b",
    [...setting.document.drives, ...setting.plan.drives, ...already].map((drive) => drive.id),
  );
  const like = {
    bytes,
    medium: pattern?.medium ?? ("hdd" as const),
    bus: pattern?.bus ?? ("sata" as const),
    ...(pattern ? { logicalSector: pattern.logicalSector, physicalSector: pattern.physicalSector } : {}),
  };
  const buys = Array.from({ length: Math.max(0, count - there.length) }, () =>
    driveToBuy(next(), like, setting.document.prices ?? []),
  );
  return { drives: [...there, ...buys], buys };
}

/** A free id for a group or a pool. */
export function freshId(setting: SequenceSetting, letter: "g" | "p"): string {
  const taken = new Set(
    [setting.plan, setting.document].flatMap((plan) => [
      ...plan.pools.flatMap((pool) => [pool.id, ...pool.groups.map((group) => group.id)]),
      ...plan.steps.flatMap((step) => [
        ...("group" in step ? [step.group] : []),
        ...("pool" in step ? [step.pool] : []),
      ]),
    ]),
  );
  let n = 1;
  while (taken.has(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}

/** What comes before the work itself: the tests of all new drives at once, and a backup meanwhile. */
export function preparations(
  setting: SequenceSetting,
  pool: Pool | null,
  joining: readonly string[],
  variants: Variants,
  needsBackup = true,
): StepBody[] {
  const tests = variants.test
    ? joining.map((drive, i): StepBody => ({ kind: "test-drive", drive, ...(i > 0 ? { together: true } : {}) }))
    : [];
  const backUp =
    variants.backUp && needsBackup && pool
      ? [
          {
            kind: "back-up",
            pool: pool.id,
            to: destinationOf(setting.plan, pool),
            ...(tests.length > 0 ? { together: true } : {}),
          } as StepBody,
        ]
      : [];
  return [...tests, ...backUp];
}

export const isChunked = (group: Pick<Group, "layout">): boolean => layoutOf(group.layout).chunked === true;
