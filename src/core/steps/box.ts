import { isDraft, produce } from "immer";
import type { Band } from "../bands/band";
import { usableOf } from "../bands/contents";
import { MiB, type Bytes } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import { driveInBay, groupOfDrive, type Group, type Plan, type Pool } from "../document/plan";
import { bayOf, type Drive } from "../drives/drive";
import { toleranceOf } from "../failures/tolerance";
import { layOutGroup } from "../layouts/layOutGroup";
import { poolReserve } from "../ledger/ledger";
import { fileSystemShare } from "../ledger/fileSystem";
import type { BoxRules } from "../rules/boxRules";
import { hoursFor, type Hours } from "../time/hours";
import { sequentialRate } from "../time/rates";
import type { BoxState } from "./stepModule";

// What the steps ask of a state again and again.

const indexes = new WeakMap<readonly Drive[], ReadonlyMap<string, Drive>>();

/** A drive of a plan by its id; of a draft, the draft of the drive. */
export function driveOf(plan: Plan, id: string): Drive | undefined {
  const { drives } = plan;
  if (isDraft(drives)) return drives.find((drive) => drive.id === id);
  let index = indexes.get(drives);
  if (!index) {
    index = new Map(drives.map((drive) => [drive.id, drive]));
    indexes.set(drives, index);
  }
  return index.get(id);
}

export const poolOf = (plan: Plan, id: string): Pool | undefined => plan.pools.find((pool) => pool.id === id);
export const poolOfGroup = (plan: Plan, id: string): Pool | undefined =>
  plan.pools.find((pool) => pool.groups.some((group) => group.id === id));
export const groupOf = (plan: Plan, id: string): Group | undefined =>
  poolOfGroup(plan, id)?.groups.find((group) => group.id === id);
export const drivesOf = (plan: Plan, ids: readonly string[]): Drive[] => ids.flatMap((id) => driveOf(plan, id) ?? []);
export const ownerOf = (plan: Plan, drive: string): { pool: Pool; group: Group } | null => groupOfDrive(plan, drive);

/** Whether a drive does anything in the box: is in a group, a spare, a cache. */
export function isFree(plan: Plan, drive: string): boolean {
  return !plan.pools.some(
    (pool) =>
      pool.spares.includes(drive) ||
      pool.helpers?.some((helper) => helper.drive === drive) ||
      pool.groups.some((group) => group.drives.includes(drive) || group.spares?.includes(drive)),
  );
}

/** The lowest free bay, or null. */
export function freeBay(plan: Plan): number | null {
  for (let bay = 1; bay <= plan.box.bays; bay += 1) if (driveInBay(plan, bay) === null) return bay;
  return null;
}

interface GroupFigures {
  rules: BoxRules;
  /** The drives of the plan that it was last asked for. */
  all: readonly Drive[];
  drives: readonly Drive[];
  bands: Band[];
  usable: Bytes;
  tolerance: number;
}

const known = new WeakMap<Group, GroupFigures>();

/** The bands of a group with what follows from them; kept for as long as the group and its drives are the same. */
function figuresOf(plan: Plan, group: Group, rules: BoxRules): GroupFigures {
  const old = known.get(group);
  if (old && old.rules === rules && old.all === plan.drives) return old;
  const drives = drivesOf(plan, group.drives);
  if (
    old &&
    old.rules === rules &&
    old.drives.length === drives.length &&
    old.drives.every((drive, i) => drive.bytes === drives[i]?.bytes && drive.id === drives[i]?.id)
  ) {
    old.all = plan.drives;
    return old;
  }
  const bands = layOutGroup(group, drives, rules);
  const made = { rules, all: plan.drives, drives, bands, usable: usableOf(bands), tolerance: toleranceOf(bands) };
  known.set(group, made);
  return made;
}

export const bandsOfGroup = (plan: Plan, group: Group, rules: BoxRules): Band[] => figuresOf(plan, group, rules).bands;
export const bandsOfPool = (plan: Plan, pool: Pool, rules: BoxRules): Band[] =>
  pool.groups.flatMap((group) => bandsOfGroup(plan, group, rules));
export const usableOfGroup = (plan: Plan, group: Group, rules: BoxRules): Bytes => figuresOf(plan, group, rules).usable;

/** What a pool holds, as the prediction says it. */
export function usableOfPool(plan: Plan, pool: Pool, rules: BoxRules): Bytes {
  const data = pool.groups.reduce((sum, group) => sum + usableOfGroup(plan, group, rules), 0);
  return data - poolReserve(data, rules.poolReserveShare);
}

/** How many drives of a pool may fail, whichever; 0 for one that cannot be made. */
export function toleranceOfPool(plan: Plan, pool: Pool, rules: BoxRules): number {
  const each = pool.groups.map((group) => figuresOf(plan, group, rules));
  return each.length === 0 || each.some((one) => one.bands.length === 0)
    ? 0
    : Math.min(...each.map((one) => one.tolerance));
}

/** What a group takes of each of its drives, metadata included, in bytes. */
export function occupied(bands: readonly Band[]): Map<string, Bytes> {
  const sums = new Map<string, Bytes>();
  for (const band of bands)
    for (const member of band.members)
      sums.set(member.drive, (sums.get(member.drive) ?? 0) + member.length + band.metadata);
  return sums;
}

/** How far up from its reserve a drive is taken, in bytes: the end of its highest band. */
export function heightOn(bands: readonly Band[], drive: string, reserve: Bytes): Bytes {
  return Math.max(
    0,
    ...bands.flatMap((band) =>
      band.members.filter((member) => member.drive === drive).map((member) => member.offset + member.length - reserve),
    ),
  );
}

/** What is stored in a pool, as far as it is known: what its volumes use; all that they have where that is not said. */
export function storedIn(pool: Pool): Bytes {
  return pool.volumes.reduce((sum, volume) => sum + Math.min(volume.bytes, volume.usedBytes ?? volume.bytes), 0);
}

/** What can still be given to a volume of a pool, together with what it has, as the box accepts it: rounded down. */
export function largestVolume(plan: Plan, pool: Pool, volume: string, rules: BoxRules): Bytes {
  const others = pool.volumes.filter((each) => each.id !== volume).reduce((sum, each) => sum + each.bytes, 0);
  return Math.max(0, floorTo(usableOfPool(plan, pool, rules) - others, MiB));
}

/** What folders see of a volume: its file system less its own structures and the share for root. */
export function fileSystemCapacity(volume: Pool["volumes"][number]): Bytes {
  const bytes = Math.min(volume.bytes, volume.fileSystemBytes ?? volume.bytes);
  const { structures, rootReserve } = fileSystemShare(volume.fileSystem, bytes);
  return bytes - structures - rootReserve;
}

/** The slowest sequential rate among some drives, in bytes per second. */
export function slowestRate(drives: readonly Drive[]): number {
  return Math.min(...drives.map(sequentialRate), Infinity);
}

/**
 * The hours of a pass over drives that each work through bytes of their own at a share of their own rate: the slowest
 * decides. No time where there is nothing to work through.
 *
 * @param share of the sequential rate that such work reaches
 */
export function passHours(plan: Plan, bytes: ReadonlyMap<string, Bytes>, share: number): Hours {
  const seconds = Math.max(
    0,
    ...drivesOf(plan, [...bytes.keys()]).map((drive) => (bytes.get(drive.id) ?? 0) / (sequentialRate(drive) * share)),
  );
  return hoursFor(seconds, 1);
}

/** The state with a changed plan. */
export function changed(state: BoxState, recipe: (plan: Plan) => void): BoxState {
  return { ...state, plan: produce(state.plan, (draft) => recipe(draft as Plan)) };
}

/** Puts a drive into a free bay unless it is in one; what was on it is erased. For use inside `changed`. */
export function takeIn(plan: Plan, id: string): void {
  const drive = driveOf(plan, id);
  if (!drive) return;
  const bay = bayOf(drive) ?? freeBay(plan);
  if (bay !== null) drive.place = { bay };
  delete drive.contents;
  delete drive.toBuy;
}
