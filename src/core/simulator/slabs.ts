import { PRODUCT } from "./galois";
import { coefficient, type Recipe, recipes } from "./erasureCode";
import type { Member, SimBox, SimDrive, Slab } from "./simulatedBox";
import { wanted } from "./wanted";

// Reading and writing the rows of a slab, block by block.

/** What a block that cannot be had back reads as. */
export const GONE = -1;

/** How many blocks of data a row of a slab holds; of striped mirrors, whose rows can end within a pair, on average. */
export function dataPerRow({ code, members, parity }: Pick<Slab, "code" | "members" | "parity">): number {
  if (code === "copies") return 1;
  return code === "ring" ? members.length / 2 : members.length - parity;
}

/** How many blocks of data a slab of this shape holds. */
const dataBlocksOf = (slab: Slab): number => Math.floor(dataPerRow(slab) * slab.rows);

/** How many blocks of data a slab holds; while it is rewritten, those that both shapes hold. */
export const dataBlocks = (slab: Slab): number =>
  slab.rewrite ? Math.min(dataBlocksOf(slab), dataBlocksOf(slab.rewrite.old)) : dataBlocksOf(slab);

/** Whether a block of data is in its new place already, in a slab that is being rewritten. */
function isMoved(slab: Slab, at: number): boolean {
  const { rewrite } = slab;
  if (!rewrite) return true;
  const perRow = dataPerRow(slab);
  return rewrite.down ? Math.floor(at / perRow) >= slab.rows - rewrite.front : at < Math.floor(perRow * rewrite.front);
}

/** Which block of its stripe a member holds in a row: data from 0, then parity. Where parity takes turns it moves. */
const roleIn = (slab: Slab, member: number, row: number): number =>
  slab.independent ? member : (member + row) % slab.members.length;

/** The reverse of `roleIn`. */
const memberOf = (slab: Slab, role: number, row: number): number => {
  const n = slab.members.length;
  if (slab.independent) return role;
  const i = (role - row) % n;
  return i < 0 ? i + n : i;
};

/** Whether a block can be read. */
const reads = (drive: SimDrive, block: number): boolean =>
  drive.state === "works" && !(drive.unreadable !== null && drive.unreadable.has(block));

/** Writes a block of a drive that works; one that could not be read can be, once it has been written. */
export function write(drive: SimDrive, block: number, byte: number): void {
  if (drive.state !== "works") return;
  drive.cells[block] = byte;
  drive.unreadable?.delete(block);
}

const driveOf = (box: SimBox, member: Member): SimDrive => box.drives[member.drive] as SimDrive;

/** Which blocks of a stripe cannot be had in a row, bit by bit by their roles. */
function missingIn(box: SimBox, slab: Slab, row: number): number {
  const { members } = slab;
  let missing = 0;
  for (let i = 0; i < members.length; i += 1) {
    const member = members[i] as Member;
    if (row >= member.valid || !reads(driveOf(box, member), member.from + row)) missing |= 1 << roleIn(slab, i, row);
  }
  if (row >= slab.agree) {
    const k = members.length - slab.parity;
    for (let p = 0; p < slab.parity; p += 1) missing |= 1 << (k + p);
  }
  return missing;
}

/** What member `i` of a slab holds in a row. */
const cell = (box: SimBox, slab: Slab, i: number, row: number): number => {
  const member = slab.members[i] as Member;
  return driveOf(box, member).cells[member.from + row] as number;
};

/** One block of a stripe worked out from the others, by its recipe. */
function worked(box: SimBox, slab: Slab, row: number, { from, by }: Recipe): number {
  let sum = 0;
  for (let u = 0; u < from.length; u += 1) {
    const byte = cell(box, slab, memberOf(slab, from[u] as number, row), row);
    sum ^= PRODUCT[((by[u] as number) << 8) | byte] as number;
  }
  return sum;
}

/** The first copy in a row that can be read. */
function copyIn(box: SimBox, slab: Slab, row: number): number {
  for (let i = 0; i < slab.members.length; i += 1) {
    const member = slab.members[i] as Member;
    // Until copies have been made only the first is one.
    if (i > 0 && row >= slab.agree) break;
    if (row < member.valid && reads(driveOf(box, member), member.from + row)) return cell(box, slab, i, row);
  }
  return GONE;
}

/** One of the two places of block `at` of striped mirrors: the copies lie next to each other, round the ring. */
function ringPlace({ members }: Slab, at: number, copy: 0 | 1): { i: number; row: number } {
  const place = 2 * at + copy;
  return { i: place % members.length, row: Math.floor(place / members.length) };
}

function readRing(box: SimBox, slab: Slab, at: number): number {
  for (const copy of [0, 1] as const) {
    const { i, row } = ringPlace(slab, at, copy);
    const member = slab.members[i] as Member;
    if (copy === 1 && row >= slab.agree) break;
    if (row < member.valid && reads(driveOf(box, member), member.from + row)) return cell(box, slab, i, row);
  }
  return GONE;
}

/** Data block `role` of a row, or `GONE`. */
function readRole(box: SimBox, slab: Slab, row: number, role: number): number {
  const own = slab.members[memberOf(slab, role, row)] as Member;
  const drive = driveOf(box, own);
  if (row < own.valid && reads(drive, own.from + row)) return drive.cells[own.from + row] as number;
  const missing = missingIn(box, slab, row);
  const recipe = recipes(slab.members.length - slab.parity, slab.parity, missing)?.find(({ of }) => of === role);
  return recipe ? worked(box, slab, row, recipe) : GONE;
}

/**
 * Block `at` of a slab's data as it can be had now, from copies or parity where need be.
 *
 * @returns its byte, or `GONE`
 */
export function readAt(box: SimBox, slab: Slab, at: number): number {
  if (slab.rewrite && !isMoved(slab, at)) return readAt(box, slab.rewrite.old, at);
  if (slab.code === "ring") return readRing(box, slab, at);
  if (slab.code === "copies") return copyIn(box, slab, at);
  const k = slab.members.length - slab.parity;
  const row = (at / k) | 0;
  return readRole(box, slab, row, at - row * k);
}

/** Calls `visit` for each data block of a slab: which data, which block of it, and what is read. */
export type Visit = (data: number, at: number, byte: number) => void;

/** Rows in which nothing is missing are read straight: that is nearly all of them. */
function readStraight(box: SimBox, slab: Slab, visit: Visit): void {
  const n = slab.members.length;
  const k = n - slab.parity;
  for (let i = 0; i < n; i += 1) {
    const member = slab.members[i] as Member;
    const { cells } = driveOf(box, member);
    const own = slab.independent && member.data !== null;
    for (let row = 0; row < slab.rows; row += 1) {
      const role = slab.independent ? i : (i + row) % n;
      if (role >= k) continue;
      const byte = cells[member.from + row] as number;
      if (own) visit(member.data as number, member.from + row, byte);
      else visit(slab.data, row * k + role, byte);
    }
  }
}

/** How the blocks of data of a row are had: by the block, where it stands, or of what it is worked out. */
interface Reading {
  k: number;
  missing: number;
  /** By the block of the stripe: the blocks of the drive that holds it, and where the slab begins on it. */
  cells: Uint8Array[];
  from: number[];
  /** By the block of data: null where it is there or cannot be had. */
  by: (Recipe | null)[];
}

function readingOf(box: SimBox, slab: Slab, row: number): Reading {
  const n = slab.members.length;
  const k = n - slab.parity;
  const missing = missingIn(box, slab, row);
  const reading: Reading = { k, missing, cells: [], from: [], by: [] };
  for (let role = 0; role < n; role += 1) {
    const member = slab.members[memberOf(slab, role, row)] as Member;
    reading.cells.push(driveOf(box, member).cells);
    reading.from.push(member.from);
    if (role < k) reading.by.push(null);
  }
  for (const recipe of (missing === 0 ? null : recipes(k, slab.parity, missing)) ?? [])
    if (recipe.of < k) reading.by[recipe.of] = recipe;
  return reading;
}

/** The rows at which it changes what can be read: where members are filled up to, and where parity begins to agree. */
function cutsOf({ rows, agree, members }: Slab): number[] {
  const cuts = [0, agree, ...members.map(({ valid }) => valid), rows].filter((row) => row >= 0 && row <= rows);
  return [...new Set(cuts)].sort((one, other) => one - other);
}

/** Rows of which some members cannot be read: between two cuts they are alike, but for the turns that parity takes. */
function readRows(box: SimBox, slab: Slab, visit: Visit): void {
  const single = slab.members.some((member) => (driveOf(box, member).unreadable?.size ?? 0) > 0);
  const turns = slab.independent ? 1 : slab.members.length;
  const cuts = cutsOf(slab);
  for (let c = 1; c < cuts.length; c += 1) {
    const alike: Reading[] = [];
    for (let row = cuts[c - 1] as number; row < (cuts[c] as number); row += 1) {
      const reading = single ? readingOf(box, slab, row) : (alike[row % turns] ??= readingOf(box, slab, row));
      readOne(slab, row, reading, visit);
    }
  }
}

/** A block of data worked out from the others of its row. */
function workedBy({ cells, from }: Reading, row: number, recipe: Recipe): number {
  const { from: sources, by } = recipe;
  let sum = 0;
  for (let u = 0; u < sources.length; u += 1) {
    const role = sources[u] as number;
    const byte = (cells[role] as Uint8Array)[(from[role] as number) + row] as number;
    sum ^= PRODUCT[((by[u] as number) << 8) | byte] as number;
  }
  return sum;
}

function readOne(slab: Slab, row: number, reading: Reading, visit: Visit): void {
  const { k, missing, cells, from, by } = reading;
  for (let role = 0; role < k; role += 1) {
    const recipe = by[role];
    let byte = GONE;
    if (!(missing & (1 << role))) byte = (cells[role] as Uint8Array)[(from[role] as number) + row] as number;
    else if (recipe) byte = workedBy(reading, row, recipe);
    const own = slab.independent ? (slab.members[role] as Member) : null;
    if (own?.data !== null && own?.data !== undefined) visit(own.data, own.from + row, byte);
    else visit(slab.data, row * k + role, byte);
  }
}

/** Reads all data of a slab, with what is missing worked out where it can be. */
export function readSlab(box: SimBox, slab: Slab, visit: Visit): void {
  if (slab.rewrite || slab.code === "ring") {
    const blocks = dataBlocks(slab);
    for (let at = 0; at < blocks; at += 1) visit(slab.data, at, readAt(box, slab, at));
    return;
  }
  if (slab.code === "copies") {
    for (let row = 0; row < slab.rows; row += 1) visit(slab.data, row, copyIn(box, slab, row));
    return;
  }
  const whole = slab.members.every((member) => {
    const drive = driveOf(box, member);
    return drive.state === "works" && member.valid >= slab.rows && !drive.unreadable?.size;
  });
  if (whole) readStraight(box, slab, visit);
  else readRows(box, slab, visit);
}

const buffer = new Uint8Array(32);

/**
 * Writes parity of a row from its data as it stands on the members; of copies, the other copies from the first.
 *
 * @returns whether the data could be read
 */
export function makeAgree(box: SimBox, slab: Slab, row: number): boolean {
  const { members, code } = slab;
  if (code === "stripe") return true;
  if (code === "copies") {
    const byte = copyIn(box, slab, row);
    if (byte !== GONE) for (const member of members) write(driveOf(box, member), member.from + row, byte);
    return byte !== GONE;
  }
  if (code === "ring") {
    for (let i = 0; i < members.length; i += 1) {
      const place = row * members.length + i;
      const byte = place % 2 === 1 && place < 2 * dataBlocksOf(slab) ? readRing(box, slab, place >> 1) : GONE;
      const member = members[i] as Member;
      if (byte !== GONE) write(driveOf(box, member), member.from + row, byte);
    }
    return true;
  }
  const k = members.length - slab.parity;
  for (let role = 0; role < k; role += 1) {
    const byte = readRole(box, slab, row, role);
    if (byte === GONE) return false;
    buffer[role] = byte;
  }
  writeParity(box, slab, row, k);
  return true;
}

/** By what each block of data goes into each block of parity, shifted to where its products stand. */
const FACTORS = Array.from({ length: 24 }, (_, p) => Int32Array.from({ length: 32 }, (_, d) => coefficient(p, d) << 8));

/** The parity of the data in `buffer`, onto its members: the first block is the XOR of all. */
function writeParity(box: SimBox, slab: Slab, row: number, k: number): void {
  for (let p = 0; p < slab.parity; p += 1) {
    const factors = FACTORS[p] as Int32Array;
    let sum = 0;
    if (p === 0) for (let d = 0; d < k; d += 1) sum ^= buffer[d] as number;
    else for (let d = 0; d < k; d += 1) sum ^= PRODUCT[(factors[d] as number) | (buffer[d] as number)] as number;
    const member = slab.members[memberOf(slab, k + p, row)] as Member;
    write(driveOf(box, member), member.from + row, sum);
  }
}

/** What the blocks of some data hold that are written. */
export type Source = (data: number, at: number) => number;

/** A row of striped mirrors: each block twice, next to each other round the ring. */
function writeRing(box: SimBox, slab: Slab, row: number, read: Source): void {
  const { members } = slab;
  const n = members.length;
  // With an odd count the last place of all can be half a pair.
  const end = 2 * dataBlocksOf(slab);
  for (let i = 0; i < n; i += 1) buffer[i] = row * n + i < end ? read(slab.data, (row * n + i) >> 1) : 0;
  for (let i = 0; i < n; i += 1) {
    const member = members[i] as Member;
    if ((row * n + i) % 2 === 0 || row < slab.agree)
      write(driveOf(box, member), member.from + row, buffer[i] as number);
  }
}

/** A row of copies: the first, and the others where they are made already. */
function writeCopies(box: SimBox, slab: Slab, row: number, read: Source): void {
  const byte = read(slab.data, row);
  const made = row < slab.agree ? slab.members.length : 1;
  for (let i = 0; i < made; i += 1) {
    const member = slab.members[i] as Member;
    write(driveOf(box, member), member.from + row, byte);
  }
}

/**
 * Writes a row of a slab as it ought to be, but for parity and copies where these are not made yet.
 *
 * @param read what the data blocks hold; as they ought to be where nothing is said
 */
export function writeRow(box: SimBox, slab: Slab, row: number, read: Source = wanted): void {
  if (slab.code === "ring") writeRing(box, slab, row, read);
  else if (slab.code === "copies") writeCopies(box, slab, row, read);
  else writeStripe(box, slab, row, read);
}

function writeStripe(box: SimBox, slab: Slab, row: number, read: Source): void {
  const { members } = slab;
  const k = members.length - slab.parity;
  // All is read before anything is written: where a slab is rewritten in place, it stands in the same blocks.
  for (let role = 0; role < k; role += 1) {
    const own = slab.independent ? (members[role] as Member) : null;
    if (own?.data !== null && own?.data !== undefined) buffer[role] = read(own.data, own.from + row);
    else buffer[role] = read(slab.data, row * k + role);
  }
  for (let i = 0; i < members.length; i += 1) {
    const role = roleIn(slab, i, row);
    const member = members[i] as Member;
    if (role < k) write(driveOf(box, member), member.from + row, buffer[role] as number);
  }
  if (slab.parity > 0 && row < slab.agree) writeParity(box, slab, row, k);
}

/**
 * Fills a member of a slab in a row from the others, and says so; what is on it counts from then on.
 *
 * @returns whether it could be worked out
 */
export function fillRow(box: SimBox, slab: Slab, i: number, row: number): boolean {
  const member = slab.members[i] as Member;
  // A smaller drive ends before.
  if (member.from + row >= driveOf(box, member).cells.length) return false;
  const byte = fromOthers(box, slab, i, row);
  if (byte !== GONE) write(driveOf(box, member), member.from + row, byte);
  if (member.valid === row) member.valid = row + 1;
  return byte !== GONE;
}

/** What a member ought to hold in a row, by the others. */
function fromOthers(box: SimBox, slab: Slab, i: number, row: number): number {
  if (slab.code === "copies") return copyIn(box, slab, row);
  if (slab.code === "ring") return readRing(box, slab, (row * slab.members.length + i) >> 1);
  const role = roleIn(slab, i, row);
  const missing = missingIn(box, slab, row) | (1 << role);
  const recipe = recipes(slab.members.length - slab.parity, slab.parity, missing)?.find(({ of }) => of === role);
  return recipe ? worked(box, slab, row, recipe) : GONE;
}

/** Reads a row with all its copies and parity, and writes what could not be read anew where the others give it. */
export function repairRow(box: SimBox, slab: Slab, row: number): void {
  slab.members.forEach((member, i) => {
    const drive = driveOf(box, member);
    const block = member.from + row;
    if (drive.state !== "works" || !drive.unreadable?.has(block) || row >= member.valid) return;
    const byte = fromOthers(box, slab, i, row);
    if (byte !== GONE) write(drive, block, byte);
  });
}
