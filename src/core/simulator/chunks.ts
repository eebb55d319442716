import { PRODUCT } from "./galois";
import { recipes } from "./erasureCode";
import type { Chunks, ChunkMember, SimBox, SimDrive } from "./simulatedBox";
import { GONE, write, type Visit } from "./slabs";
import { wanted } from "./wanted";

// Chunks are placed as such systems place them: a stripe goes to the drives that have most room then, and stays there.

/** How many blocks a stripe has in all. */
export const widthOf = ({ k, copies, parity }: Pick<Chunks, "k" | "copies" | "parity">): number => k * copies + parity;

/** Stripes of a shape, with none placed yet. */
export const noStripes = (
  shape: Pick<Chunks, "k" | "copies" | "parity">,
  data: number,
  members: ChunkMember[],
): Chunks => {
  const most = Math.ceil(members.reduce((sum, { reach }) => sum + reach, 0) / widthOf(shape)) + 1;
  return {
    ...shape,
    data,
    members,
    count: 0,
    on: new Int16Array(most * widthOf(shape)),
    at: new Int32Array(most * widthOf(shape)),
    rewrite: null,
  };
};

const driveOf = (box: SimBox, member: ChunkMember): SimDrive | undefined => box.drives[member.drive];

/** Members that can be written, those with most room first. */
function withRoom(box: SimBox, { members }: Chunks, without: number): number[] {
  const free = (i: number) => (members[i]?.reach ?? 0) - (members[i]?.taken ?? 0);
  return members
    .map((_, i) => i)
    .filter((i) => {
      const member = members[i];
      return i !== without && free(i) > 0 && member !== undefined && driveOf(box, member)?.state === "works";
    })
    .sort((a, b) => free(b) - free(a) || a - b);
}

/** Takes a free block of a member. */
function take(member: ChunkMember): number {
  const block = member.used.indexOf(0, member.lowest);
  member.used[block] = 1;
  member.lowest = block + 1;
  member.taken += 1;
  return block;
}

function release(member: ChunkMember | undefined, block: number): void {
  if (!member) return;
  member.used[block] = 0;
  member.taken -= 1;
  member.lowest = Math.min(member.lowest, block);
}

/** Writes stripe `stripe` where it has been placed. */
function writeStripe(box: SimBox, chunks: Chunks, stripe: number, bytes: readonly number[]): void {
  const { k, copies, parity, members } = chunks;
  const width = widthOf(chunks);
  const full = copies > 1 ? null : recipes(k, parity, ((1 << parity) - 1) << k);
  for (let c = 0; c < width; c += 1) {
    const member = members[chunks.on[stripe * width + c] as number];
    const drive = member && driveOf(box, member);
    if (!drive) continue;
    let byte = bytes[c < k * copies ? Math.floor(c / copies) : 0] as number;
    const recipe = c >= k * copies ? full?.find(({ of }) => of === c) : undefined;
    if (recipe)
      byte = recipe.from.reduce(
        (sum, from, u) => sum ^ (PRODUCT[((recipe.by[u] as number) << 8) | (bytes[from] as number)] as number),
        0,
      );
    write(drive, chunks.at[stripe * width + c] as number, byte);
  }
}

/**
 * Places a stripe on the drives with most room, and writes it.
 *
 * @param bytes its blocks of data; as they ought to be where nothing is said
 * @param without a member that is to get none; −1 for all
 * @returns whether there was room
 */
export function addStripe(box: SimBox, chunks: Chunks, bytes?: readonly number[], without = -1): boolean {
  const width = widthOf(chunks);
  const on = withRoom(box, chunks, without).slice(0, width);
  if (on.length < width) return false;
  if ((chunks.count + 1) * width > chunks.on.length) widenTables(chunks);
  const stripe = chunks.count;
  chunks.count += 1;
  placeStripe(box, chunks, stripe, on, bytes);
  return true;
}

/** Room in the tables for as many stripes again: further or larger drives hold more than there were at first. */
function widenTables(chunks: Chunks): void {
  const [on, at] = [new Int16Array(2 * chunks.on.length), new Int32Array(2 * chunks.at.length)];
  on.set(chunks.on);
  at.set(chunks.at);
  Object.assign(chunks, { on, at });
}

function placeStripe(box: SimBox, chunks: Chunks, stripe: number, on: number[], bytes?: readonly number[]): void {
  const width = widthOf(chunks);
  on.forEach((i, c) => {
    chunks.on[stripe * width + c] = i;
    chunks.at[stripe * width + c] = take(chunks.members[i] as ChunkMember);
  });
  const { k, data } = chunks;
  writeStripe(box, chunks, stripe, bytes ?? Array.from({ length: k }, (_, j) => wanted(data, stripe * k + j)));
}

/** Fills all room that is left. */
export function fillUp(box: SimBox, chunks: Chunks): void {
  while (addStripe(box, chunks)) continue;
}

/** What of a stripe stands on drives that can be read: bytes, or `GONE`. */
function standing(box: SimBox, chunks: Chunks, stripe: number): number[] {
  const width = widthOf(chunks);
  return Array.from({ length: width }, (_, c) => {
    const member = chunks.members[chunks.on[stripe * width + c] as number];
    const drive = member && driveOf(box, member);
    const block = chunks.at[stripe * width + c] as number;
    const reads = drive?.state === "works" && block < (member?.valid ?? 0) && !drive.unreadable?.has(block);
    return reads ? (drive.cells[block] as number) : GONE;
  });
}

/** What of a stripe can be read, as bytes or `GONE`, the worked out ones included. */
function readStripe(box: SimBox, chunks: Chunks, stripe: number): number[] {
  const { k, copies, parity } = chunks;
  const there = standing(box, chunks, stripe);
  if (copies > 1) {
    const block = (c: number) => Math.floor(c / copies);
    const another = (c: number) => there.find((other, o) => other !== GONE && block(o) === block(c)) ?? GONE;
    return there.map((byte, c) => (byte === GONE ? another(c) : byte));
  }
  const missing = there.reduce((bits, byte, c) => (byte === GONE ? bits | (1 << c) : bits), 0);
  if (missing === 0) return there;
  for (const { of, from, by } of recipes(k, parity, missing) ?? [])
    there[of] = from.reduce(
      (sum, c, u) => sum ^ (PRODUCT[((by[u] as number) << 8) | (there[c] as number)] as number),
      0,
    );
  return there;
}

/** The first of each block of data among what a stripe holds. */
const dataIn = ({ k, copies }: Chunks, stripe: readonly number[]): number[] =>
  Array.from({ length: k }, (_, j) => stripe[j * copies] ?? GONE);

/** How many blocks of data are stored. */
export const storedBlocks = ({ rewrite, count, k }: Chunks): number =>
  rewrite ? rewrite.old.count * rewrite.old.k : count * k;

/** Block `at` of the data, or `GONE`. */
function readAt(box: SimBox, chunks: Chunks, at: number): number {
  if (chunks.rewrite && at >= chunks.rewrite.front) return readAt(box, chunks.rewrite.old, at);
  return dataIn(chunks, readStripe(box, chunks, Math.floor(at / chunks.k)))[at % chunks.k] ?? GONE;
}

/** Reads all that is stored. */
export function readChunks(box: SimBox, chunks: Chunks, visit: Visit): void {
  if (chunks.rewrite) {
    const blocks = storedBlocks(chunks);
    for (let at = 0; at < blocks; at += 1) visit(chunks.data, at, readAt(box, chunks, at));
    return;
  }
  for (let stripe = 0; stripe < chunks.count; stripe += 1)
    dataIn(chunks, readStripe(box, chunks, stripe)).forEach((byte, j) =>
      visit(chunks.data, stripe * chunks.k + j, byte),
    );
}

/**
 * Fills one block of a member from the others of its stripe; of what is written anew, also in the old shape.
 *
 * @param places for each block of the member the place in `on` of the chunk that lies there, in both shapes
 */
export function fillBlock(box: SimBox, chunks: Chunks, member: number, block: number, places: PlacesOn): void {
  const of = chunks.members[member];
  const drive = of && driveOf(box, of);
  const now = places.now[block] ?? -1;
  const before = places.before?.[block] ?? -1;
  const lies = now >= 0 ? { chunks, place: now } : { chunks: chunks.rewrite?.old, place: before };
  if (lies.place >= 0 && lies.chunks && drive) {
    const width = widthOf(lies.chunks);
    const byte = readStripe(box, lies.chunks, Math.floor(lies.place / width))[lies.place % width] ?? GONE;
    if (byte !== GONE) write(drive, block, byte);
  }
  if (of?.valid === block) of.valid = block + 1;
}

/** For each block of a member the place of the chunk that lies there, −1 where none does; and so in the old shape. */
export interface PlacesOn {
  now: Int32Array;
  before: Int32Array | null;
}

function placesFrom(chunks: Chunks, member: number, stripe: number): Int32Array {
  const places = new Int32Array(chunks.members[member]?.used.length ?? 0).fill(-1);
  const width = widthOf(chunks);
  for (let place = stripe * width; place < chunks.count * width; place += 1)
    if (chunks.on[place] === member) places[chunks.at[place] as number] = place;
  return places;
}

/** Where the chunks on a member lie. Old stripes that have been written anew have given their blocks back. */
export function placesOn(chunks: Chunks, member: number): PlacesOn {
  const { rewrite } = chunks;
  return {
    now: placesFrom(chunks, member, 0),
    before: rewrite && placesFrom(rewrite.old, member, Math.floor(rewrite.front / rewrite.old.k)),
  };
}

/** Whether a block of a stripe is on a member. */
const liesOn = (chunks: Chunks, stripe: number, member: number): boolean => {
  const width = widthOf(chunks);
  return chunks.on.subarray(stripe * width, (stripe + 1) * width).includes(member);
};

/**
 * Moves a stripe off a member, to those with most room.
 *
 * @returns whether there was room
 */
export function moveOff(box: SimBox, chunks: Chunks, stripe: number, member: number): boolean {
  if (!liesOn(chunks, stripe, member)) return true;
  const width = widthOf(chunks);
  const bytes = dataIn(chunks, readStripe(box, chunks, stripe));
  const was = Array.from({ length: width }, (_, c) => chunks.on[stripe * width + c] as number);
  was.forEach((i, c) => release(chunks.members[i], chunks.at[stripe * width + c] as number));
  const on = withRoom(box, chunks, member).slice(0, width);
  if (on.length < width) {
    // It stays where it was.
    was.forEach((i, c) => {
      const own = chunks.members[i];
      if (!own) return;
      own.used[chunks.at[stripe * width + c] as number] = 1;
      own.taken += 1;
    });
    return false;
  }
  placeStripe(box, chunks, stripe, on, bytes);
  return true;
}

/** Begins to write all that is stored anew, in stripes of a shape, placed as there is room. */
export const restriped = (chunks: Chunks, shape: Pick<Chunks, "k" | "copies" | "parity">): Chunks => ({
  ...noStripes(shape, chunks.data, chunks.members),
  rewrite: { old: chunks, front: 0 },
});

/**
 * One stripe more of what is being written anew; the stripes that are empty then give their room back.
 *
 * @returns whether there was room for it
 */
export function restripe(box: SimBox, chunks: Chunks): boolean {
  const { rewrite, k, data } = chunks;
  if (!rewrite) return true;
  const { old } = rewrite;
  const from = rewrite.front;
  const bytes = Array.from({ length: k }, (_, j) =>
    from + j < old.count * old.k ? readAt(box, old, from + j) : wanted(data, from + j),
  );
  if (!addStripe(box, chunks, bytes)) return false;
  rewrite.front = from + k;
  const width = widthOf(old);
  for (let s = Math.floor(from / old.k); s < Math.min(old.count, Math.floor((from + k) / old.k)); s += 1)
    for (let c = 0; c < width; c += 1)
      release(old.members[old.on[s * width + c] as number], old.at[s * width + c] as number);
  return true;
}

/** Ends the writing anew: what is left of the old stripes gives its room back. */
export function endRestriping(chunks: Chunks): void {
  const { rewrite } = chunks;
  if (!rewrite) return;
  const { old } = rewrite;
  const width = widthOf(old);
  for (let s = Math.floor(rewrite.front / old.k); s < old.count; s += 1)
    for (let c = 0; c < width; c += 1)
      release(old.members[old.on[s * width + c] as number], old.at[s * width + c] as number);
  chunks.rewrite = null;
}

/** Reads every chunk of a stripe, and writes what could not be read anew where the others give it. */
export function repairStripe(box: SimBox, chunks: Chunks, stripe: number): void {
  const width = widthOf(chunks);
  const bytes = readStripe(box, chunks, stripe);
  bytes.forEach((byte, c) => {
    const member = chunks.members[chunks.on[stripe * width + c] as number];
    const drive = member && driveOf(box, member);
    const block = chunks.at[stripe * width + c] as number;
    if (drive?.state === "works" && drive.unreadable?.has(block) && byte !== GONE) write(drive, block, byte);
  });
}
