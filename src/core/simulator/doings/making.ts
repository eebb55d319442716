import type { StepOf } from "../../document/plan";
import { rulesOf } from "../../rules/ruleSets";
import { REBUILD_SHARE } from "../../drives/rates";
import { roomOf } from "../../drives/room";
import { addStripe } from "../chunks";
import { AT_ONCE, firstFillShare, passOver, together } from "../pace";
import { bareGroup, capacityOf, makeGroup } from "../groups";
import { bareSlab } from "../lieOn";
import { groupNamed, groupWith, placeOf, type SimBox, type SimGroup, type SimPool, type Slab } from "../simulatedBox";
import { write } from "../slabs";
import { allot } from "../volumes";
import { wanted } from "../wanted";
import { type Doing, freeBay, phaseOf, takeIn, waiting } from "../doing";
import { disagreeing, type Phase } from "../work";
import { rateTo } from "./elsewhere";

const newPool = (id: string): SimPool => ({ id, groups: [], spares: [], volumes: [], paused: false });

const placesOf = (box: SimBox, ids: readonly string[]): number[] => ids.map((id) => placeOf(box, id));

/** The first fill of what has just been made: copies and parity from the data that is there. */
export function firstFill(box: SimBox, group: SimGroup, slabs: readonly number[] = disagreeing(group)): Phase[] {
  if (slabs.length === 0) return [];
  const own = group.slabs.filter(({ data }) => slabs.includes(data));
  return [phaseOf(box, { kind: "agree", group: group.id, slabs }, passOver(box, own, firstFillShare))];
}

const orAtOnce = (phases: Phase[]): Phase[] => (phases.length > 0 ? phases : [waiting(AT_ONCE)]);

export const createGroup: Doing<"create-group"> = {
  joins: ({ drives }) => drives,
  begin: (box, step) => {
    if (box.pools.some(({ id }) => id === step.pool)) return "The pool is there already.";
    const pool = newPool(step.pool);
    const drives = placesOf(box, step.drives);
    drives.forEach((place) => takeIn(box, place));
    const group = makeGroup(box, { id: step.group, layout: step.layout, options: step.options, drives });
    pool.groups.push(group);
    box.pools.push(pool);
    return orAtOnce(firstFill(box, group));
  },
};

export const addGroup: Doing<"add-group"> = {
  joins: ({ drives }) => drives,
  begin: (box, step) => {
    const pool = box.pools.find(({ id }) => id === step.pool);
    if (!pool) return "The pool is not there.";
    const drives = placesOf(box, step.drives);
    drives.forEach((place) => takeIn(box, place));
    const group = makeGroup(box, { id: step.group, layout: step.layout, options: step.options, drives });
    pool.groups.push(group);
    return orAtOnce(firstFill(box, group));
  },
};

/** How far up the file system of a drive reaches that is to be mirrored, in blocks. */
function reachOf(box: SimBox, place: number): number {
  const drive = box.drives[place];
  if (!drive) return 0;
  const between = roomOf(drive.is, box.rules).between;
  return Math.round(Math.min(between, drive.is.fileSystemBytes ?? Infinity) / box.block);
}

/** The slab of a drive with data: what it holds stays where it is, and its copy is still to be written. */
function mirrored(box: SimBox, holder: number, by: number, from: number, rows: number, independent: boolean): Slab {
  const slab = bareSlab(box, { code: "copies", parity: 0 }, rows, independent);
  const drive = box.drives[holder];
  if (drive?.own !== null && drive?.own !== undefined) slab.data = drive.own;
  else if (drive) for (let row = 0; row < rows; row += 1) write(drive, row, wanted(slab.data, row));
  const data = independent ? slab.data : null;
  slab.members = [
    { drive: holder, from: 0, valid: rows, data },
    { drive: by, from, valid: 0, data },
  ];
  if (drive) drive.own = null;
  return slab;
}

/** Takes holders that are separate drives of a pool out of it, with what they hold. */
function holdersLeave(box: SimBox, step: StepOf<"mirror-drive">, holders: readonly number[]): SimPool | null {
  const owner = groupNamed(box, step.group);
  if (!owner) return null;
  for (const slab of owner.group.slabs) {
    const place = slab.members[0]?.drive ?? -1;
    const drive = box.drives[place];
    if (holders.includes(place) && drive) drive.own = slab.members[0]?.data ?? slab.data;
  }
  owner.pool.groups = owner.pool.groups.filter(({ id }) => id !== step.group);
  return owner.pool;
}

/** The group that mirrors each holder on its own part of another drive. */
function mirrorsOf(box: SimBox, id: string, holders: readonly number[], by: number): SimGroup {
  const rows = holders.map((place) => reachOf(box, place));
  const group = bareGroup({ id, layout: holders.length > 1 ? "mirror-onto-one" : "raid1", drives: [...holders, by] });
  group.reach = [...rows, box.drives[by]?.blocks ?? 0];
  let from = 0;
  holders.forEach((holder, i) => {
    group.slabs.push(mirrored(box, holder, by, from, rows[i] ?? 0, holders.length > 1));
    from += rows[i] ?? 0;
  });
  return group;
}

export const mirrorDrive: Doing<"mirror-drive"> = {
  joins: ({ by }) => [by],
  begin: (box, step) => {
    const holders = placesOf(box, [step.drive, ...(step.also ?? [])]);
    const isOthers = (place: number) => (groupWith(box, place)?.group.id ?? step.group) !== step.group;
    if (holders.some(isOthers)) return "A drive that is to be mirrored is in use already.";
    const by = placeOf(box, step.by);
    const needed = holders.reduce((sum, place) => sum + reachOf(box, place), 0);
    if (needed > (box.drives[by]?.blocks ?? 0)) return "The drive is too small for what it is to mirror.";
    const pool = holdersLeave(box, step, holders);
    const into = pool ?? newPool(step.pool);
    for (const place of holders) {
      const drive = box.drives[place];
      if (drive) drive.bay ??= freeBay(box);
    }
    takeIn(box, by);
    const group = mirrorsOf(box, step.group, holders, by);
    into.groups.push(group);
    if (!pool) box.pools.push(into);
    const part = pool ? copiedPart(box, pool) : 1;
    const seconds = together(box, [...holders, by], needed * part, REBUILD_SHARE, false);
    return [phaseOf(box, { kind: "fill", group: group.id, place: by }, seconds)];
  },
};

/** How much of what a pool has is copied: all, or what is used, as the box fills new groups or else as it rebuilds. */
function copiedPart(box: SimBox, pool: SimPool): number {
  const { firstFill: fills, rebuilding } = box.rules;
  const usedOnly = fills === "none" ? rebuilding === "used-only" : fills === "used-only";
  if (!usedOnly || pool.volumes.length === 0) return 1;
  const blocks = pool.groups.reduce((sum, group) => sum + capacityOf(box, group), 0);
  const stored = pool.volumes.reduce((sum, volume) => sum + volume.stored, 0) / box.block;
  return Math.min(1, stored / Math.max(1, blocks));
}

/** Another box, or the same, in which a pool is made anew. */
function moveInto(box: SimBox, { box: other, drives }: StepOf<"rebuild-from-backup">): void {
  if (!other) return;
  box.rules = rulesOf(other.rules);
  box.bays = other.bays;
  for (const drive of box.drives) {
    const at = drives.indexOf(drive.id);
    drive.bay = at < 0 ? null : at + 1;
    const blocks = Math.round(roomOf(drive.is, box.rules).between / box.block);
    if (blocks === drive.blocks) continue;
    const cells = new Uint8Array(blocks + 2);
    cells.set(drive.cells.subarray(0, blocks));
    Object.assign(drive, { cells, blocks });
  }
}

export const rebuildFromBackup: Doing<"rebuild-from-backup"> = {
  begin: (box, step) => {
    const pool = box.pools.find(({ id }) => id === step.pool);
    if (!pool) return "The pool is not there.";
    const drives = placesOf(box, step.drives);
    if (drives.some((place) => (groupWith(box, place)?.pool ?? pool) !== pool))
      return "A drive that is to join is in use already.";
    for (const place of pool.groups.flatMap((group) => group.drives)) {
      const drive = box.drives[place];
      if (drive?.state === "works") box.erased.add(drive.id);
      else if (drive && !drives.includes(place)) drive.bay = null;
    }
    if (step.box) {
      moveInto(box, step);
      pool.spares = [];
    }
    pool.spares = pool.spares.filter((place) => !drives.includes(place));
    drives.forEach((place) => takeIn(box, place));
    const id = pool.groups[0]?.id ?? "g1";
    const group = makeGroup(box, { id, layout: step.layout, options: step.options, drives });
    pool.groups = [group];
    const stored = pool.volumes.reduce((sum, volume) => sum + volume.stored, 0);
    const backup = box.backups.filter((each) => each.pool === pool.id).at(-1);
    const restore = Math.max(stored, 4e10) / (backup?.rate ?? rateTo(box, step.pool));
    const [fill] = firstFill(box, group);
    // What is brought back is written while the new group is filled for the first time.
    if (!fill) return [waiting(restore)];
    return [{ ...fill, seconds: Math.max(fill.seconds, restore) }];
  },
  end: (box, step) => {
    const pool = box.pools.find(({ id }) => id === step.pool);
    const group = pool?.groups[0];
    if (!pool || !group) return;
    const stored = pool.volumes.reduce((sum, volume) => sum + volume.stored, 0) / box.block;
    const { chunks } = group;
    while (chunks && chunks.count * chunks.k < stored) if (!addStripe(box, chunks)) break;
    for (const volume of pool.volumes) {
      volume.extents = [];
      volume.files = volume.bytes;
    }
    allot(box, pool);
  },
};
