import { besideParity, byItself, fillsAtOnce, liesOf, slabsOf, takenIn } from "./lieOn";
import { capacityOfPool, cellsOn, inWholeChunks, isRedundant, writeSlab } from "./groups";
import { fillShare, hasParity, passOver, sideBySide } from "./pace";
import { RESHAPE_SHARE } from "../drives/rates";
import type { SimBox, SimGroup, SimPool } from "./simulatedBox";
import { allot } from "./volumes";
import { readBack } from "./readBack";
import { endRewrite, reshape, rewriteRow } from "./rewriting";

// How the space of larger drives comes into use, and what boxes do by themselves when a step has ended.

const MiB = 2 ** 20;

const topOf = (group: SimGroup): number =>
  Math.max(0, ...group.slabs.map(({ rows, members }) => rows + (members[0]?.from ?? 0)));

/** Slabs above those that there are, where enough drives reach higher now. */
export function addSlabsAbove(box: SimBox, group: SimGroup, agreeing: boolean): number[] {
  const made = slabsOf(box, group, topOf(group));
  for (const slab of made) {
    if (!agreeing && fillsAtOnce(box.rules) && isRedundant(slab)) slab.agree = 0;
    writeSlab(box, slab);
    group.slabs.push(slab);
  }
  return made.map(({ data }) => data);
}

/** Drives that cover a slab whole, and are not in it, join it: its rows are rewritten over one drive more. */
function joinCovered(box: SimBox, group: SimGroup, lies: Extract<ReturnType<typeof liesOf>, { in: "rows" }>): void {
  for (const slab of group.slabs) {
    const from = slab.members[0]?.from ?? 0;
    const joining = group.drives.filter(
      (place, i) => takenIn(box, group, i) >= slab.top && !slab.members.some(({ drive }) => drive === place),
    );
    const members = [...slab.members, ...joining.map((drive) => ({ drive, from, valid: slab.rows, data: null }))];
    const row = lies.row(members.length, group.drives.length, false);
    if (joining.length === 0 || !row) continue;
    reshape(slab, { ...row, members });
    for (let r = 0; r < slab.rows; r += 1) rewriteRow(box, slab, r);
    endRewrite(box, slab);
  }
}

/** Rows over whole drives go up to the lowest of all that stand in the array, hot spares included. */
function raise(box: SimBox, pool: SimPool, group: SimGroup): void {
  const standing = [...pool.spares, ...group.spares].map((place) => box.drives[place]?.blocks ?? 0);
  const height = Math.min(...group.reach, ...standing);
  const [slab] = group.slabs;
  if (!slab || group.slabs.length > 1 || height <= slab.rows) return;
  const from = slab.rows;
  const whole = slab.agree >= from;
  slab.rows = height;
  if (whole) slab.agree = height;
  for (const member of slab.members) if (member.valid >= from) member.valid = height;
  writeSlab(box, slab, Math.max(0, from - 1));
}

/** Data drives beside parity laid out again as far up as they are taken in; each keeps the data of its own. */
export function recut(box: SimBox, group: SimGroup): void {
  const lies = liesOf(group.layout);
  if (lies.in !== "beside-parity") return;
  const lanes = new Map<number, number>();
  for (const { members } of group.slabs)
    for (const { drive, data } of members) if (data !== null) lanes.set(drive, data);
  for (const place of group.drives)
    if (!group.parityDrives.includes(place) && !lanes.has(place)) lanes.set(place, box.nextData++);
  group.slabs = besideParity(box, group, lies.parity, lanes);
}

/**
 * Takes in all of a group's drives, or one of them, as far up as they go: what is new of them comes into use as the
 * layout allows, and nothing else moves.
 *
 * @param only the place of the one; null for all
 * @example claim(box, pool, group) // rows over whole drives then reach up to the smallest
 */
export function claim(box: SimBox, pool: SimPool, group: SimGroup, only: number | null = null): void {
  const lies = liesOf(group.layout);
  if (lies.in === "onto-one") return;
  group.drives.forEach((place, i) => {
    if (only === null || only === place) group.reach[i] = box.drives[place]?.blocks ?? 0;
  });
  switch (lies.in) {
    case "rows":
      if (lies.overAll) raise(box, pool, group);
      else {
        joinCovered(box, group, lies);
        addSlabsAbove(box, group, true);
      }
      break;
    case "single-drives":
      group.slabs = group.slabs.map((slab) => {
        const place = slab.members[0]?.drive ?? -1;
        const grown = byItself(box, group, place, lies.independent);
        if (grown.rows <= slab.rows) return slab;
        Object.assign(grown, { data: slab.data });
        if (grown.members[0] && lies.independent) grown.members[0].data = slab.members[0]?.data ?? slab.data;
        writeSlab(box, grown, slab.rows);
        return grown;
      });
      break;
    case "beside-parity": {
      const cells = new Map(group.drives.map((place) => [place, cellsOn(group, place)]));
      recut(box, group);
      if (group.drives.some((place) => cellsOn(group, place) !== cells.get(place)))
        group.slabs.forEach((slab) => writeSlab(box, slab));
      break;
    }
    case "chunks":
      group.chunks?.members.forEach((member) => {
        const at = group.drives.indexOf(member.drive);
        if (at >= 0) member.reach = inWholeChunks(box, group.reach[at] ?? 0);
      });
      break;
  }
}

/** What a box does by its rules when a step has ended: new space comes into use, the last volume and the files grow. */
export function settle(box: SimBox): void {
  for (const pool of box.pools) {
    if (box.rules.claiming === "by-itself") pool.groups.forEach((group) => claim(box, pool, group));
    if (box.rules.growing === "by-itself") {
      growLast(box, pool);
      for (const volume of pool.volumes) volume.files = volume.bytes;
    }
    allot(box, pool);
  }
}

/** What a pool can still give to a volume, beside what the others have: rounded down, in bytes. */
export function roomFor(box: SimBox, pool: SimPool, id: string): number {
  const others = pool.volumes.filter((volume) => volume.id !== id).reduce((sum, { bytes }) => sum + bytes, 0);
  const lacks = pool.groups.some(({ drives }) => drives.some((place) => box.drives[place]?.state !== "works"));
  // Space whose data is lost with a drive is not given out again.
  const blocks = capacityOfPool(box, pool) - (lacks ? readBack(box, pool).lost : 0);
  return Math.max(0, Math.floor((blocks * box.block - others) / MiB) * MiB);
}

function growLast(box: SimBox, pool: SimPool): void {
  const last = pool.volumes.at(-1);
  if (last) last.bytes = Math.max(last.bytes, roomFor(box, pool, last.id));
}

/**
 * The seconds in which copies and parity are written into the space that a group has gained: each drive what is new on
 * it. Chunks get theirs with the data, and a box that looks only at what is used has nothing to write there yet.
 *
 * @param after the same group once it has gained it
 * @param stood for a drive that has taken another's place, whose
 * @returns null where nothing is written
 */
export function newSpaceSeconds(
  box: SimBox,
  before: SimGroup,
  after: SimGroup,
  stood: ReadonlyMap<number, number> = new Map(),
): number | null {
  if (after.chunks || box.rules.rebuilding === "used-only" || !after.slabs.some(isRedundant)) return null;
  // Slabs that a drive joins are rewritten over it; the rest of what is new is filled.
  const joined = after.slabs.filter((slab) => {
    const was = before.slabs.find(({ data }) => data === slab.data);
    return was !== undefined && was.members.length < slab.members.length;
  });
  const moved = (place: number) =>
    joined.reduce((sum, { rows, members }) => sum + (members.some(({ drive }) => drive === place) ? rows : 0), 0);
  const gained = new Map(
    after.drives
      .map((place): [number, number] => [place, cellsOn(after, place) - cellsOn(before, stood.get(place) ?? place)])
      .filter(([, blocks]) => blocks > 0),
  );
  if (gained.size === 0) return null;
  const filled = new Map([...gained].map(([place, blocks]) => [place, Math.max(0, blocks - moved(place))]));
  return passOver(box, joined, () => RESHAPE_SHARE) + sideBySide(box, filled, fillShare(after.slabs), hasParity(after));
}
