import { REBUILD_SHARE, RESHAPE_SHARE, sequentialRate } from "../../drives/rates";
import type { GroupOptions, StepOf } from "../../document/plan";
import { restriped } from "../chunks";
import { addSlabsAbove, claim, newSpaceSeconds, recut } from "../claims";
import { type Doing, isHighEnough, phaseOf, takeIn, gaining, waiting } from "../doing";
import { cellsOn, emptyMember, writeSlab } from "../groups";
import { byItself, liesOf, roomOn } from "../lieOn";
import { AT_ONCE, cellsOf, fillShare, firstFillShare, hasParity, passOver, sideBySide, together } from "../pace";
import {
  forkBox,
  groupNamed,
  groupWith,
  placeOf,
  type SimBox,
  type SimGroup,
  type SimPool,
  type Slab,
} from "../simulatedBox";
import { reshape } from "../rewriting";
import { dataBlocks } from "../slabs";
import { disagreeing, type Phase } from "../work";
import { firstFill } from "./making";

// Work that changes how a group lies: more drives, another level, a drive fewer, everything spread again.

const topOf = (slab: Slab): number => (slab.members[0]?.from ?? 0) + slab.rows;

/** The joining drives that cover a slab whole, as members of it. */
const joiningIn = (box: SimBox, slab: Slab, joining: readonly number[], overAll: boolean) =>
  joining
    .filter((place) => (overAll ? isHighEnough(box, place, topOf(slab)) : roomOn(box, place) >= slab.top))
    .map((drive) => ({ drive, from: slab.members[0]?.from ?? 0, valid: slab.rows, data: null }));

/** Rewrites the slabs of a group over more drives, and lays new ones above where the drives reach higher. */
function widenRows(box: SimBox, group: SimGroup, joining: readonly number[]): Phase[] | string {
  const lies = liesOf(group.layout);
  if (lies.in !== "rows") return "The layout does not lie in rows.";
  const count = group.drives.length + joining.length;
  const changing = group.slabs.flatMap((slab) => {
    const more = joiningIn(box, slab, joining, lies.overAll);
    if (lies.overAll && more.length < joining.length) return [];
    const members = [...slab.members.map((member) => ({ ...member })), ...more];
    const row = lies.overAll ? slab : lies.row(members.length, count, false);
    return more.length > 0 && row ? [{ slab, members, code: row.code, parity: row.parity }] : [];
  });
  if (lies.overAll && changing.length < group.slabs.length) return "A drive is smaller than the group is high.";
  for (const place of joining) {
    takeIn(box, place);
    group.drives.push(place);
    group.reach.push(box.drives[place]?.blocks ?? 0);
  }
  for (const { slab, ...shape } of changing) reshape(slab, shape);
  const seconds = passOver(
    box,
    changing.map(({ slab }) => slab),
    () => RESHAPE_SHARE,
  );
  const made = lies.overAll ? [] : addSlabsAbove(box, group, false);
  return [
    ...(changing.length > 0 ? [phaseOf(box, { kind: "rewrite", group: group.id }, seconds)] : []),
    ...firstFill(
      box,
      group,
      disagreeing(group).filter((data) => made.includes(data)),
    ),
  ];
}

/** More copies of a mirror: each new drive is filled with one. */
function widenCopies(box: SimBox, group: SimGroup, joining: readonly number[]): Phase[] | string {
  const [slab] = group.slabs;
  if (!slab || joiningIn(box, slab, joining, true).length < joining.length)
    return "A drive is smaller than the mirror.";
  const seconds = together(box, [...group.drives, ...joining], slab.rows, REBUILD_SHARE, false);
  return joining.map((place) => {
    takeIn(box, place);
    group.drives.push(place);
    group.reach.push(box.drives[place]?.blocks ?? 0);
    slab.members.push({ drive: place, from: slab.members[0]?.from ?? 0, valid: 0, data: null });
    return phaseOf(box, { kind: "fill", group: group.id, place }, seconds / joining.length);
  });
}

/** A drive that joins parity drives is cleared first, so that the parity stays right; others just join. */
function joins(box: SimBox, group: SimGroup, joining: readonly number[]): Phase[] {
  joining.forEach((place) => takeIn(box, place));
  if (group.chunks) {
    for (const place of joining) {
      group.drives.push(place);
      group.reach.push(box.drives[place]?.blocks ?? 0);
      group.chunks.members.push(emptyMember(box, place));
    }
    return [waiting(AT_ONCE)];
  }
  const clears = group.parityDrives.length > 0 && box.rules.parityWrites === "at-once";
  if (!clears) return [waiting(AT_ONCE)];
  const drives = joining.flatMap((place) => (box.drives[place] ? [box.drives[place]] : []));
  const slowest = Math.min(...drives.map(({ is, slow }) => sequentialRate(is) / slow));
  const seconds = Math.max(...drives.map(({ bytes }) => bytes)) / slowest;
  return joining.map((place) => phaseOf(box, { kind: "overwrite", place }, seconds / joining.length));
}

/** Whether a box lets a drive join a group, by its rule about sizes; separate drives and spans take any. */
function mayJoin(box: SimBox, group: SimGroup, place: number): boolean {
  const lies = liesOf(group.layout);
  const { joining } = box.rules;
  if (lies.in === "single-drives" || (lies.in === "rows" && lies.overAll)) return true;
  if (joining === "any-size" || joining === "up-to-parity") return true;
  const sizes = group.drives.map((each) => box.drives[each]?.bytes ?? 0);
  // That it be as large as the largest is asked of hybrids only, whose rows end at the sizes of drives.
  const largest = joining === "as-largest-member" && lies.in === "rows";
  return (box.drives[place]?.bytes ?? 0) >= (largest ? Math.max(...sizes) : Math.min(...sizes));
}

export const widenGroup: Doing<"widen-group"> = {
  joins: ({ drives }) => drives,
  begin: (box, step) => {
    const owner = groupNamed(box, step.group);
    const joining = step.drives.map((id) => placeOf(box, id));
    if (!owner || joining.some((place) => place < 0)) return "The group is not there.";
    const { group } = owner;
    const lies = liesOf(group.layout);
    if (lies.in === "onto-one") return "No drive can join this layout.";
    if (!joining.every((place) => mayJoin(box, group, place))) return "The box takes no drive as small as this one.";
    if (lies.in !== "rows") return joins(box, group, joining);
    const phases =
      group.slabs.every(({ code }) => code === "copies") && lies.overAll
        ? widenCopies(box, group, joining)
        : widenRows(box, group, joining);
    return typeof phases === "string" || phases.length > 0 ? phases : [waiting(AT_ONCE)];
  },
  end: (box, step) => {
    const group = groupNamed(box, step.group)?.group;
    if (!group || group.chunks) return;
    const lies = liesOf(group.layout);
    const joining = step.drives.map((id) => placeOf(box, id));
    if (lies.in !== "single-drives" && lies.in !== "beside-parity") return;
    for (const place of joining) {
      group.drives.push(place);
      group.reach.push(box.drives[place]?.blocks ?? 0);
      if (lies.in === "single-drives") {
        const slab = byItself(box, group, place, lies.independent);
        writeSlab(box, slab);
        group.slabs.push(slab);
      }
    }
    if (lies.in !== "beside-parity") return;
    recut(box, group);
    group.slabs.forEach((slab) => writeSlab(box, slab));
  },
};

/** The drives of a stripe that becomes striped mirrors, each with a new one beside it; otherwise new ones come last. */
const arranged = (from: string, to: string, stays: readonly number[], joining: readonly number[]): number[] =>
  from === "stripe" && to === "ring"
    ? stays.flatMap((place, i) => [place, ...joining.slice(i, i + 1)])
    : [...stays, ...joining];

/** Of volumes what lies beyond the new end of a slab that holds less than before; it moves to where there is room. */
function dropBeyond({ volumes }: SimPool, { slabs }: SimGroup): void {
  for (const slab of slabs)
    for (const volume of volumes)
      volume.extents = volume.extents.flatMap((extent) => {
        if (extent.data !== slab.data) return [extent];
        const count = Math.min(extent.count, dataBlocks(slab) - extent.from);
        return count > 0 ? [{ ...extent, count }] : [];
      });
}

/** A slab with the shape that a level gives it; null where too few drives reach it for that level. */
type Shaped = { slab: Slab } & Pick<Slab, "members" | "code" | "parity">;

/** What becomes of the slabs of a group with some drives more and some fewer. */
function shapesFor(
  box: SimBox,
  group: SimGroup,
  to: Extract<ReturnType<typeof liesOf>, { in: "rows" }>,
  joining: readonly number[],
  leaving: readonly number[],
): (Shaped | null)[] {
  const count = group.drives.length - leaving.length + joining.length;
  return group.slabs.map((slab) => {
    const stays = slab.members.filter(({ drive }) => !leaving.includes(drive));
    const more = joiningIn(box, slab, joining, to.overAll);
    const row = to.row(stays.length + more.length, to.overAll ? stays.length + more.length : count, false);
    if (!row) return null;
    const own = new Map([...stays, ...more].map((member) => [member.drive, member]));
    const [old, fresh] = [stays, more].map((members) => members.map(({ drive }) => drive));
    const order = arranged(slab.code, row.code, old ?? [], fresh ?? []);
    return { slab, ...row, members: order.flatMap((drive) => own.get(drive) ?? []) };
  });
}

/** How many blocks of each drive are rewritten, as they were: not those of a slab that is given up. */
function rewrittenOn(group: SimGroup, shapes: readonly (Shaped | null)[]): Map<number, number> {
  const blocks = new Map(group.drives.map((place) => [place, 0]));
  for (const shape of shapes)
    for (const { drive } of shape?.slab.members ?? [])
      blocks.set(drive, (blocks.get(drive) ?? 0) + (shape?.slab.rows ?? 0));
  return blocks;
}

/** Rows that too few drives reach for a level are given up; what was stored there moves to the others. */
function giveUp({ volumes }: SimPool, group: SimGroup, shapes: readonly (Shaped | null)[]): void {
  const given = group.slabs.filter((_, i) => shapes[i] === null).map(({ data }) => data);
  group.slabs = group.slabs.filter(({ data }) => !given.includes(data));
  for (const volume of volumes) volume.extents = volume.extents.filter(({ data }) => !given.includes(data));
}

/** Another level for slabs over all drives, or for the slabs of a hybrid. */
function levelOfRows(box: SimBox, owner: SimPool, group: SimGroup, step: StepOf<"change-level">): Phase[] | string {
  const to = liesOf(step.layout);
  if (to.in !== "rows") return "There is no way to that level with the data kept.";
  const leaving = (step.without ?? []).map((id) => placeOf(box, id));
  const joining = step.drives.map((id) => placeOf(box, id));
  const low = joining.some((place) => group.slabs.some((slab) => !isHighEnough(box, place, topOf(slab))));
  if (to.overAll && low) return "A drive is smaller than the group is high.";
  const shapes = shapesFor(box, group, to, joining, leaving);
  const moved = rewrittenOn(group, shapes);
  const stay = group.drives.filter((place) => !leaving.includes(place));
  const reach = new Map(group.drives.map((place, i) => [place, group.reach[i] ?? 0]));
  joining.forEach((place) => takeIn(box, place));
  for (const shape of shapes)
    if (shape) {
      const { slab, members, code, parity } = shape;
      reshape(slab, { members: members.map((member) => ({ ...member })), code, parity });
    }
  giveUp(owner, group, shapes);
  dropBeyond(owner, group);
  group.drives = to.overAll ? (group.slabs[0]?.members.map(({ drive }) => drive) ?? []) : [...stay, ...joining];
  group.reach = group.drives.map((place) => reach.get(place) ?? box.drives[place]?.blocks ?? 0);
  group.layout = step.layout;
  for (const place of joining) moved.set(place, cellsOn(group, place));
  const seconds = sideBySide(box, moved, RESHAPE_SHARE, hasParity(group));
  const work = phaseOf(box, { kind: "rewrite", group: group.id }, seconds);
  const made = to.overAll ? [] : addSlabsAbove(box, group, false);
  return [
    work,
    ...firstFill(
      box,
      group,
      made.filter((data) => disagreeing(group).includes(data)),
    ),
  ];
}

/** One more parity drive. */
function moreParityDrives(box: SimBox, group: SimGroup, step: StepOf<"change-level">): Phase[] | string {
  const joining = step.drives.map((id) => placeOf(box, id));
  const data = group.drives.filter((place) => !group.parityDrives.includes(place));
  const height = Math.max(0, ...data.map((place) => box.drives[place]?.blocks ?? 0));
  if (!joining.every((place) => isHighEnough(box, place, height))) return "The drive is smaller than a data drive.";
  joining.forEach((place) => takeIn(box, place));
  const longest = Math.max(0, ...group.drives.map((place) => cellsOn(group, place)));
  const seconds = together(box, [...group.drives, ...joining], longest, fillShare(group.slabs), true);
  return [waiting(seconds)];
}

/** What is said where chunks stand half in one shape and half in another. */
const STOPPED = "What was begun before has stopped for lack of space: part of the data is in the old shape still.";

export const changeLevel: Doing<"change-level"> = {
  joins: ({ drives }) => drives ?? [],
  begin: (box, step) => {
    const owner = groupNamed(box, step.group);
    if (!owner) return "The group is not there.";
    const { group, pool } = owner;
    const to = liesOf(step.layout);
    const options: GroupOptions = step.options ?? group.options;
    if (group.chunks?.rewrite) return STOPPED;
    if (group.chunks && to.in === "chunks") {
      const cells = cellsOf(box, pool, group);
      for (const place of step.drives.map((id) => placeOf(box, id))) joins(box, group, [place]);
      group.layout = step.layout;
      group.options = { ...options };
      group.chunks = restriped(group.chunks, to.shape(options));
      const seconds = sideBySide(box, cells, RESHAPE_SHARE, group.chunks.parity > 0);
      return [phaseOf(box, { kind: "restripe", group: group.id }, Math.max(seconds, 1e-9))];
    }
    if (to.in === "beside-parity") return moreParityDrives(box, group, step);
    return levelOfRows(box, pool, group, step);
  },
  end: (box, step) => {
    const group = groupNamed(box, step.group)?.group;
    if (!group || liesOf(step.layout).in !== "beside-parity") return;
    for (const place of step.drives.map((id) => placeOf(box, id))) {
      group.drives.push(place);
      group.reach.push(box.drives[place]?.blocks ?? 0);
      group.parityDrives.push(place);
    }
    group.layout = step.layout;
    recut(box, group);
    group.slabs.forEach((slab) => writeSlab(box, slab));
  },
};

export const rebalance: Doing<"rebalance"> = {
  begin: (box, step) => {
    const owner = groupNamed(box, step.group);
    if (!owner?.group.chunks) return "There are no chunks to spread.";
    if (owner.group.chunks.rewrite) return STOPPED;
    const { group, pool } = owner;
    const seconds = sideBySide(box, cellsOf(box, pool, group), RESHAPE_SHARE, hasParity(group));
    const { k, copies, parity } = owner.group.chunks;
    group.chunks = restriped(owner.group.chunks, { k, copies, parity });
    return [phaseOf(box, { kind: "restripe", group: group.id }, Math.max(seconds, 1e-9))];
  },
};

export const claimSpace: Doing<"claim-space"> = {
  begin: (box, step) => {
    const owner = groupNamed(box, step.group);
    if (!owner) return "The group is not there.";
    const other = forkBox(box);
    claimSpace.end?.(other, step);
    const after = groupNamed(other, step.group)?.group;
    return [gaining(step.group, (after && newSpaceSeconds(box, owner.group, after)) ?? AT_ONCE)];
  },
  end: (box, step) => {
    const owner = groupNamed(box, step.group);
    // An array over whole drives is claimed whole, whatever drive is named.
    const only = box.rules.claiming === "whole-group" && !owner?.group.chunks ? undefined : step.drive;
    if (owner) claim(box, owner.pool, owner.group, only === undefined ? null : placeOf(box, only));
  },
};

/** Takes a drive out of a group's lists. */
function leaves(box: SimBox, group: SimGroup, place: number): void {
  const at = group.drives.indexOf(place);
  group.drives.splice(at, 1);
  group.reach.splice(at, 1);
  for (const slab of group.slabs) slab.members = slab.members.filter(({ drive }) => drive !== place);
  group.slabs = group.slabs.filter(({ members }) => members.length > 0);
  const drive = box.drives[place];
  if (drive) drive.bay = null;
}

/** The parity of the drives that stay, worked out again; until then it counts for nothing. */
function withoutDataDrive(box: SimBox, group: SimGroup, place: number): Phase[] {
  leaves(box, group, place);
  recut(box, group);
  for (const slab of group.slabs) slab.agree = 0;
  return [
    phaseOf(
      box,
      { kind: "agree", group: group.id, slabs: group.slabs.map(({ data }) => data) },
      passOver(box, group.slabs, firstFillShare),
    ),
  ];
}

/** Chunks moved off a drive; of one that is gone they are made again by the others, each its share. */
function offChunks(box: SimBox, pool: SimPool, group: SimGroup, place: number): Phase[] {
  const blocks = cellsOf(box, pool, group).get(place) ?? 0;
  const others = group.drives.filter((each) => each !== place && box.drives[each]?.state === "works");
  const parity = hasParity(group);
  const seconds =
    box.drives[place]?.state === "works"
      ? sideBySide(box, new Map([[place, blocks]]), RESHAPE_SHARE, parity)
      : together(box, others, (2 * blocks) / Math.max(1, others.length), RESHAPE_SHARE, parity);
  return [phaseOf(box, { kind: "move-off", group: group.id, place }, seconds)];
}

/** A copy fewer, or a drive with files of its own fewer; what a smaller one held back can come into use by itself. */
function oneFewer(box: SimBox, group: SimGroup, place: number): Phase[] {
  const before = groupNamed(forkBox(box), group.id)?.group ?? group;
  leaves(box, group, place);
  if (liesOf(group.layout).in !== "rows" || box.rules.claiming !== "by-itself") return [waiting(AT_ONCE)];
  const other = forkBox(box);
  const after = groupNamed(other, group.id);
  if (after) claim(other, after.pool, after.group);
  return [gaining(group.id, (after && newSpaceSeconds(box, before, after.group)) ?? AT_ONCE)];
}

export const removeDrive: Doing<"remove-drive"> = {
  // Chunks are moved off it first; of other groups it has been taken out already.
  pullsLast: (box, step) => (box.drives[placeOf(box, step.drive)]?.bay ?? null) !== null,
  begin: (box, step) => {
    const place = placeOf(box, step.drive);
    const owner = groupWith(box, place);
    if (!owner) return "The drive is in no group.";
    const { group, pool } = owner;
    const lies = liesOf(group.layout);
    if (group.chunks) return offChunks(box, pool, group, place);
    if (lies.in === "beside-parity") return withoutDataDrive(box, group, place);
    return lies.in === "rows" && group.slabs.some(({ code }) => code !== "copies")
      ? "The others cannot hold what is on it."
      : oneFewer(box, group, place);
  },
  end: (box, step) => {
    const place = placeOf(box, step.drive);
    const group = groupWith(box, place)?.group;
    if (!group?.chunks) return;
    for (const member of group.chunks.members)
      if (member.drive === place) Object.assign(member, { drive: -1, reach: 0 });
    leaves(box, group, place);
  },
};
