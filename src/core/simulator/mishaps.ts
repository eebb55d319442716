import { roomOf } from "../drives/room";
import { freeBay, putInPlaceOf } from "./doing";
import { fitsIn } from "./doings/replacing";
import { groupWith, placeOf, type SimBox, type SimDrive, type SimGroup, type SimPool } from "./simulatedBox";
import { canBeRead } from "./canBeRead";
import { dataPerRow, makeAgree, write } from "./slabs";
import { rewriteRow } from "./rewriting";
import type { Practice } from "./practice";
import { Draw } from "./draw";
import { unitsOf } from "./work";

/** What can befall a box, at any moment. Drives, pools and volumes by their ids. */
export type Mishap =
  | { kind: "drive-dies"; drive: string }
  /** So many of its blocks cannot be read; that is found when they are. */
  | { kind: "unreadable"; drive: string; blocks: number }
  | { kind: "goes-missing"; drive: string }
  | { kind: "comes-back"; drive: string }
  | { kind: "power-cut" }
  /** The owner pulls a drive that works, instead of the one meant. */
  | { kind: "wrong-drive-pulled"; drive: string }
  /** A drive that is not in use yet turns out to be a little smaller than it should be. */
  | { kind: "short"; drive: string; bytes: number }
  /** A drive dies while it is being filled. */
  | { kind: "dies-young"; drive: string }
  | { kind: "slow"; drive: string; times: number }
  /** Parity by schedule is brought up to date though a drive is gone. */
  | { kind: "parity-updated"; pool: string }
  /** The owner forgets the next step that makes a volume or its files larger. */
  | { kind: "grow-forgotten" }
  /** Theft or fire: all that is in the place. */
  | { kind: "fire" }
  | { kind: "deletion"; volume: string };

/** All kinds of mishap, in the order in which they are listed. */
export const MISHAPS = [
  "drive-dies",
  "unreadable",
  "goes-missing",
  "comes-back",
  "power-cut",
  "wrong-drive-pulled",
  "short",
  "dies-young",
  "slow",
  "parity-updated",
  "grow-forgotten",
  "fire",
  "deletion",
] as const satisfies readonly Mishap["kind"][];

/** For how long a drive may be away and be taken in again as it is, in hours: nothing has been written meanwhile. */
const A_SHORT_WHILE = 0.25;

/** The spare that a box takes by itself for a drive of a group: the group's own first, the smallest that fits first. */
function spareFor(box: SimBox, pool: SimPool, group: SimGroup, place: number): number | undefined {
  const fits = (places: readonly number[]) =>
    places
      .filter((spare) => box.drives[spare]?.state === "works" && fitsIn(box, group, place, spare))
      .sort((a, b) => (box.drives[a]?.bytes ?? 0) - (box.drives[b]?.bytes ?? 0));
  return fits(group.spares)[0] ?? fits(pool.spares)[0];
}

/** Work that fills the drive, or copies from it, cannot go on as it was. */
function stopWorkOn(practice: Practice, place: number): void {
  const { box } = practice;
  for (const running of practice.running)
    for (const phase of running.phases) {
      const { op } = phase;
      if (op.kind === "fill" && op.place === place) running.stuck = true;
      // Also once all of it is copied: nothing goes into a place that does not answer.
      if (op.kind === "copy" && op.to === place) running.stuck = true;
      if (op.kind !== "copy" || running.phases[running.phase] !== phase || op.from !== place) continue;
      // What is left to copy is worked out from the others; the copy goes on in its place.
      const owner = groupWith(box, place);
      if (owner) putInPlaceOf(box, owner.group, place, op.to, 0);
      reached(owner?.group, op.to, phase.done);
      phase.op = { kind: "fill", group: op.group, place: op.to };
      phase.units = Math.max(1, unitsOf(box, phase.op));
    }
  for (const { step, stuck } of practice.running)
    if (stuck) practice.said.push({ hours: box.hours, what: "stopped", step: step.id });
  practice.running = practice.running.filter(({ stuck }) => !stuck);
}

/** Says of a drive that so many units of a copy are on it already. */
function reached(group: SimGroup | undefined, place: number, units: number): void {
  let left = units;
  for (const slab of group?.slabs ?? [])
    for (const member of slab.members)
      if (member.drive === place) {
        member.valid = Math.min(slab.rows, left);
        left -= member.valid;
      }
  for (const member of group?.chunks?.members ?? []) if (member.drive === place) member.valid = units;
}

/** A group of which too many drives are gone is not written to any more: what works on it stands still until it can. */
function standStill(practice: Practice, group: SimGroup): void {
  const isDown = !canBeRead(practice.box, group);
  if (isDown) practice.down.add(group.id);
  else practice.down.delete(group.id);
  for (const running of practice.running) {
    const op = running.phases[running.phase]?.op;
    if (op && "group" in op && op.group === group.id) running.held = isDown;
  }
}

/** A drive that is gone; the box throws it out, goes on without it, and takes a spare where one fits. */
function lose(practice: Practice, drive: SimDrive, state: "failed" | "missing"): void {
  const { box } = practice;
  if (drive.state !== "works") return;
  drive.state = state;
  if (state === "missing") drive.bay = null;
  practice.away.set(drive.id, box.hours);
  practice.said.push({ hours: box.hours, what: state === "failed" ? "thrown-out" : "not-there", drive: drive.id });
  const place = box.drives.indexOf(drive);
  stopWorkOn(practice, place);
  const owner = groupWith(box, place);
  if (!owner) return;
  standStill(practice, owner.group);
  const spare = spareFor(box, owner.pool, owner.group, place);
  const by = spare === undefined ? undefined : box.drives[spare];
  if (
    !by ||
    !practice.begin({ kind: "rebuild", id: `spare-${by.id}`, group: owner.group.id, drive: drive.id, by: by.id })
  )
    return;
  practice.said.push({ hours: box.hours, what: "spare-took-over", drive: by.id });
}

/** Whether work writes to the drives of a group now. */
const isWritten = ({ running }: Practice, group: string): boolean =>
  running.some(({ phases, phase }) => {
    const op = phases[phase]?.op;
    return op !== undefined && "group" in op && op.group === group && op.kind !== "fill" && op.kind !== "copy";
  });

/** A drive that was away is back: within a short while as it was, otherwise to be filled anew from the others. */
function comeBack(practice: Practice, drive: SimDrive): void {
  const { box } = practice;
  if (drive.state === "works") return;
  const since = practice.away.get(drive.id) ?? box.hours;
  practice.away.delete(drive.id);
  const owner = groupWith(box, box.drives.indexOf(drive));
  drive.state = "works";
  drive.bay ??= freeBay(box);
  practice.said.push({ hours: box.hours, what: "back", drive: drive.id });
  if (!owner) return;
  // Nothing was written to a group that could not be read.
  const wasDown = practice.down.has(owner.group.id);
  const asItWas = wasDown || !isWritten(practice, owner.group.id);
  standStill(practice, owner.group);
  if (asItWas && (wasDown || box.hours - since <= A_SHORT_WHILE)) return;
  practice.said.push({ hours: box.hours, what: "filled-again", drive: drive.id });
  // None of it counts any more, also while it waits to be filled.
  putInPlaceOf(box, owner.group, box.drives.indexOf(drive), box.drives.indexOf(drive), 0);
  practice.begin({ kind: "rebuild", id: `back-${drive.id}`, group: owner.group.id, drive: drive.id, by: drive.id });
}

/**
 * The power goes while something is done. What keeps its used space ahead of the front goes on where it was. What is
 * rewritten in a shape that holds as much in a row as before has no such space: the row at its front is half in the old
 * shape and half in the new one, and taken for the new one when it goes on.
 */
function cutPower(practice: Practice): void {
  const { box } = practice;
  practice.said.push({ hours: box.hours, what: "power-cut" });
  if (box.ups) return;
  for (const { slabs } of box.pools.flatMap(({ groups }) => groups))
    for (const slab of slabs) {
      const { rewrite } = slab;
      if (!rewrite || dataPerRow(slab) !== dataPerRow(rewrite.old) || rewrite.front >= slab.rows) continue;
      const row = rewrite.front;
      const late = slab.members.slice(Math.ceil(slab.members.length / 2));
      const old = late.map(({ drive, from }) => box.drives[drive]?.cells[from + row] ?? 0);
      rewriteRow(box, slab, row);
      late.forEach(({ drive, from }, i) => {
        const own = box.drives[drive];
        if (own) write(own, from + row, old[i] ?? 0);
      });
    }
}

/**
 * Parity worked out from what is there: a drive that is gone counts as if it held nothing. A schedule that is paused
 * does not do it.
 */
function updateParity(box: SimBox, pool: SimPool | undefined): void {
  if (pool?.paused) return;
  for (const { slabs, parityDrives } of pool?.groups ?? []) {
    if (parityDrives.length === 0) continue;
    for (const slab of slabs) {
      const gone = slab.members.filter(({ drive, data }) => data !== null && box.drives[drive]?.state !== "works");
      for (let row = 0; row < slab.rows && gone.length > 0; row += 1) emptyParity(box, slab, row, gone);
    }
  }
}

/** Parity of a row as if some members held nothing but zeros. */
function emptyParity(
  box: SimBox,
  slab: SimGroup["slabs"][number],
  row: number,
  gone: SimGroup["slabs"][number]["members"],
): void {
  const kept = gone.map(({ drive, from, valid }) => ({ drive: box.drives[drive], block: from + row, valid }));
  const were = kept.map(({ drive, block }) => drive?.cells[block] ?? 0);
  const states = kept.map(({ drive }) => drive?.state ?? "works");
  kept.forEach(({ drive, block }) => {
    if (!drive) return;
    drive.state = "works";
    drive.cells[block] = 0;
  });
  makeAgree(box, slab, row);
  kept.forEach(({ drive, block }, i) => {
    if (!drive) return;
    drive.state = states[i] ?? "works";
    drive.cells[block] = were[i] ?? 0;
  });
}

/** A drive that is not in use is a little smaller than it should be. */
function shorten(box: SimBox, drive: SimDrive, bytes: number): void {
  drive.bytes -= bytes;
  drive.is = { ...drive.is, bytes: drive.bytes };
  if (groupWith(box, box.drives.indexOf(drive))) return;
  const blocks = Math.min(drive.blocks, Math.round(roomOf(drive.is, box.rules).between / box.block));
  drive.cells = drive.cells.slice(0, blocks + 2);
  drive.blocks = blocks;
}

/** Theft or fire takes the box with its drives, and the backups that are kept beside it. */
function burn(practice: Practice): void {
  const { box } = practice;
  box.drives.forEach((drive, place) => {
    if (drive.bay !== null || groupWith(box, place)) drive.state = "failed";
  });
  box.backups = box.backups.filter(({ place }) => place === "elsewhere");
  practice.running = [];
  practice.said.push({ hours: box.hours, what: "gone" });
}

/** So many more blocks of a drive that cannot be read, drawn for each drive by itself; at most all of it. */
function spoil(practice: Practice, drive: SimDrive, blocks: number): void {
  const draw = new Draw(practice.seed + 7919 * practice.box.drives.indexOf(drive));
  drive.unreadable ??= new Set();
  const wanted = Math.min(drive.blocks, drive.unreadable.size + blocks);
  while (drive.unreadable.size < wanted) {
    let block = draw.below(drive.blocks);
    // What is drawn twice is the next one that can still be read.
    while (drive.unreadable.has(block)) block = (block + 1) % drive.blocks;
    drive.unreadable.add(block);
  }
}

/** A drive by its id; a mishap that names none is the caller's mistake. */
function driveIn({ box }: Practice, id: string): SimDrive {
  const drive = box.drives[placeOf(box, id)];
  if (!drive) throw new RangeError(`There is no drive ${id}.`);
  return drive;
}

/** What each kind of mishap does to a box, and what the box then does by itself. */
const BEFALLS: {
  readonly [K in Mishap["kind"]]: (practice: Practice, mishap: Extract<Mishap, { kind: K }>) => void;
} = {
  "drive-dies": (practice, { drive }) => lose(practice, driveIn(practice, drive), "failed"),
  "dies-young": (practice, { drive }) => lose(practice, driveIn(practice, drive), "failed"),
  "goes-missing": (practice, { drive }) => lose(practice, driveIn(practice, drive), "missing"),
  "wrong-drive-pulled": (practice, { drive }) => lose(practice, driveIn(practice, drive), "missing"),
  "comes-back": (practice, { drive }) => comeBack(practice, driveIn(practice, drive)),
  unreadable: (practice, { drive, blocks }) => spoil(practice, driveIn(practice, drive), blocks),
  short: (practice, { drive, bytes }) => shorten(practice.box, driveIn(practice, drive), bytes),
  slow: (practice, { drive, times }) => void (driveIn(practice, drive).slow = times),
  "power-cut": cutPower,
  "parity-updated": ({ box }, { pool }) =>
    updateParity(
      box,
      box.pools.find(({ id }) => id === pool),
    ),
  "grow-forgotten": (practice) => void (practice.forgets = true),
  fire: burn,
  deletion: ({ box, deleted }, { volume }) => {
    if (box.pools.some(({ volumes }) => volumes.some(({ id }) => id === volume))) deleted.set(volume, box.hours);
  },
};

/**
 * Lets something befall the box of a practice; what the box does about it by itself is done.
 *
 * @throws RangeError for a drive that is not there
 * @example befall(practice, { kind: "drive-dies", drive: "d3" })
 */
export function befall<K extends Mishap["kind"]>(practice: Practice, mishap: Extract<Mishap, { kind: K }>): void {
  const act = BEFALLS[mishap.kind] as (practice: Practice, mishap: Extract<Mishap, { kind: K }>) => void;
  act(practice, mishap);
}
