import { PRODUCT } from "./galois";
import { type Recipe, recipes } from "./erasureCode";
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
  return slab.independent ? role : (((role - row) % n) + n) % n;
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
  if (slab.code === "copies") return copyIn(box, slab, row);
  const missing = missingIn(box, slab, row);
  if (!(missing & (1 << role))) return cell(box, slab, memberOf(slab, role, row), row);
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
  const k = dataPerRow(slab);
  return readRole(box, slab, Math.floor(at / k), at % k);
}

/** Which data and which block of it stands at a role of a row. */
function addressed(slab: Slab, row: number, role: number): { data: number; at: number } {
  const own = slab.independent ? slab.members[role] : undefined;
  if (own?.data !== null && own?.data !== undefined) return { data: own.data, at: own.from + row };
  return { data: slab.data, at: row * dataPerRow(slab) + role };
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

/** What is missing in a row, and how each of its blocks of data is had. */
interface Reading {
  missing: number;
  /** By the block of data: null where it is there or cannot be had. */
  by: (Recipe | null)[];
}

function readingOf(box: SimBox, slab: Slab, row: number): Reading {
  const k = slab.members.length - slab.parity;
  const missing = missingIn(box, slab, row);
  const found = missing === 0 ? null : recipes(k, slab.parity, missing);
  return { missing, by: Array.from({ length: k }, (_, role) => found?.find(({ of }) => of === role) ?? null) };
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
      readOne(box, slab, row, reading, visit);
    }
  }
}

function readOne(box: SimBox, slab: Slab, row: number, { missing, by }: Reading, visit: Visit): void {
  const k = by.length;
  for (let role = 0; role < k; role += 1) {
    const recipe = by[role];
    let byte = GONE;
    if (!(missing & (1 << role))) byte = cell(box, slab, memberOf(slab, role, row), row);
    else if (recipe) byte = worked(box, slab, row, recipe);
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

/** The parity of the data in `buffer`, onto its members. */
function writeParity(box: SimBox, slab: Slab, row: number, k: number): void {
  const full = recipes(k, slab.parity, ((1 << slab.parity) - 1) << k) ?? [];
  for (const { of, from, by } of full) {
    let sum = 0;
    for (let u = 0; u < from.length; u += 1)
      sum ^= PRODUCT[((by[u] as number) << 8) | (buffer[from[u] as number] as number)] as number;
    const member = slab.members[memberOf(slab, of, row)] as Member;
    write(driveOf(box, member), member.from + row, sum);
  }
}

/**
 * Writes a row of a slab as it ought to be, but for parity and copies where these are not made yet.
 *
 * @param read what the data blocks hold; as they ought to be where nothing is said
 */
export function writeRow(
  box: SimBox,
  slab: Slab,
  row: number,
  read: (data: number, at: number) => number = wanted,
): void {
  const { members, code } = slab;
  const n = members.length;
  if (code === "ring") {
    // With an odd count the last place of all can be half a pair.
    const end = 2 * dataBlocksOf(slab);
    for (let i = 0; i < n; i += 1) buffer[i] = row * n + i < end ? read(slab.data, (row * n + i) >> 1) : 0;
    for (let i = 0; i < n; i += 1) {
      const member = members[i] as Member;
      if ((row * n + i) % 2 === 0 || row < slab.agree)
        write(driveOf(box, member), member.from + row, buffer[i] as number);
    }
    return;
  }
  const k = dataPerRow(slab);
  if (code === "copies") {
    const byte = read(slab.data, row);
    const made = row < slab.agree ? n : 1;
    for (let i = 0; i < made; i += 1)
      write(driveOf(box, members[i] as Member), (members[i] as Member).from + row, byte);
    return;
  }
  // All is read before anything is written: where a slab is rewritten in place, it stands in the same blocks.
  for (let role = 0; role < k; role += 1) {
    const { data, at } = addressed(slab, row, role);
    buffer[role] = read(data, at);
  }
  for (let role = 0; role < k; role += 1) {
    const member = members[memberOf(slab, role, row)] as Member;
    write(driveOf(box, member), member.from + row, buffer[role] as number);
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
