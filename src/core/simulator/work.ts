import { endRestriping, fillBlock, moveOff, placesOn, repairStripe, restripe } from "./chunks";
import { isRedundant } from "./groups";
import { groupNamed, type SimBox, type SimGroup, type Slab } from "./simulatedBox";
import { endRewrite, rewriteRow } from "./rewriting";
import { fillRow, makeAgree, repairRow, write } from "./slabs";

// Work on blocks, unit by unit in the order in which such work goes: from the bottom up. What it has done stands in the
// blocks, so that it can be held up at any unit, go on, or never end.

/** What is done to the blocks. */
export type Op =
  /** A drive of a group filled from the others. */
  | { kind: "fill"; group: string; place: number }
  /** What a group has of a drive, copied to another that will stand in its place. */
  | { kind: "copy"; group: string; from: number; to: number }
  /** Parity and copies made for data that is there. */
  | { kind: "agree"; group: string; slabs: readonly number[] }
  /** Rows written anew in another shape. */
  | { kind: "rewrite"; group: string }
  /** Stripes of chunks written anew. */
  | { kind: "restripe"; group: string }
  /** Chunks moved off a drive. */
  | { kind: "move-off"; group: string; place: number }
  /** Everything read and compared, and repaired where it cannot be read. */
  | { kind: "check"; pool: string }
  /** A drive overwritten, or read from end to end. */
  | { kind: "overwrite"; place: number }
  | { kind: "read-through"; place: number }
  /** Time passes, and no block is touched: a copy to another place, a drive changed by hand. */
  | { kind: "wait" };

/** A piece of work: so many units, which take so long together. */
export interface Phase {
  op: Op;
  units: number;
  done: number;
  seconds: number;
}

const groupIn = (box: SimBox, id: string): SimGroup | undefined => groupNamed(box, id)?.group;

/** The slab and row that unit `unit` of work over some slabs is; null beyond the last. */
function rowAt(slabs: readonly Slab[], unit: number): { slab: Slab; row: number } | null {
  let left = unit;
  for (const slab of slabs) {
    if (left < slab.rows) return { slab, row: left };
    left -= slab.rows;
  }
  return null;
}

const lengthOf = (slabs: readonly Slab[]): number => slabs.reduce((sum, { rows }) => sum + rows, 0);

const slabsWith = (group: SimGroup | undefined, place: number): Slab[] =>
  group?.slabs.filter((slab) => slab.members.some(({ drive }) => drive === place)) ?? [];

const rewritten = (group: SimGroup | undefined): Slab[] => group?.slabs.filter(({ rewrite }) => rewrite) ?? [];
const among = (group: SimGroup | undefined, which: readonly number[]): Slab[] =>
  group?.slabs.filter(({ data }) => which.includes(data)) ?? [];

/** The slabs of a group of which copies or parity have still to be made, by their data. */
export const disagreeing = ({ slabs }: SimGroup): number[] =>
  slabs.filter((slab) => slab.agree < slab.rows && isRedundant(slab)).map(({ data }) => data);

const groupsOf = (box: SimBox, pool: string): SimGroup[] => box.pools.find(({ id }) => id === pool)?.groups ?? [];

/** How many units a piece of work has, as the box is when it begins. */
export function unitsOf(box: SimBox, op: Op): number {
  switch (op.kind) {
    case "fill":
    case "copy": {
      const group = groupIn(box, op.group);
      const place = op.kind === "fill" ? op.place : op.from;
      const member = group?.chunks?.members.find(({ drive }) => drive === place);
      return member ? member.used.length : lengthOf(slabsWith(group, place));
    }
    case "agree":
      return lengthOf(among(groupIn(box, op.group), op.slabs));
    case "rewrite":
      return lengthOf(rewritten(groupIn(box, op.group)));
    case "restripe": {
      const chunks = groupIn(box, op.group)?.chunks;
      return Math.ceil(((chunks?.rewrite?.old.count ?? 0) * (chunks?.rewrite?.old.k ?? 0)) / (chunks?.k ?? 1));
    }
    case "move-off":
      return groupIn(box, op.group)?.chunks?.count ?? 0;
    case "check":
      return groupsOf(box, op.pool).reduce((sum, { slabs, chunks }) => sum + lengthOf(slabs) + (chunks?.count ?? 0), 0);
    case "overwrite":
    case "read-through":
      return box.drives[op.place]?.blocks ?? 0;
    case "wait":
      return 1;
  }
}

function copyRow(box: SimBox, slab: Slab, from: number, to: number, row: number): void {
  const i = slab.members.findIndex(({ drive }) => drive === from);
  const member = slab.members[i];
  const [old, next] = [box.drives[from], box.drives[to]];
  if (!member || !old || !next) return;
  if (old.state === "works" && !old.unreadable?.has(member.from + row))
    write(next, member.from + row, old.cells[member.from + row] ?? 0);
}

function check(box: SimBox, pool: string, unit: number): void {
  let left = unit;
  for (const { slabs, chunks } of groupsOf(box, pool)) {
    const at = rowAt(slabs, left);
    if (at) return repairRow(box, at.slab, at.row);
    left -= lengthOf(slabs);
    if (chunks && left < chunks.count) return repairStripe(box, chunks, left);
    left -= chunks?.count ?? 0;
  }
}

/** Units `from` to below `to` of work on the chunks or rows that one drive has. */
function onDrive(box: SimBox, op: Extract<Op, { kind: "fill" | "copy" }>, from: number, to: number): void {
  const group = groupIn(box, op.group);
  const place = op.kind === "fill" ? op.place : op.from;
  const chunks = group?.chunks;
  const member = chunks?.members.findIndex(({ drive }) => drive === place) ?? -1;
  if (chunks && member >= 0) {
    const places = op.kind === "fill" ? placesOn(chunks, member) : null;
    const [old, next] = op.kind === "copy" ? [box.drives[op.from], box.drives[op.to]] : [];
    for (let block = from; block < to; block += 1)
      if (places) fillBlock(box, chunks, member, block, places);
      else if (old?.state === "works" && next) write(next, block, old.cells[block] ?? 0);
    return;
  }
  const slabs = slabsWith(group, place);
  for (let unit = from; unit < to; unit += 1) {
    const at = rowAt(slabs, unit);
    if (!at) continue;
    const i = at.slab.members.findIndex(({ drive }) => drive === place);
    if (op.kind === "fill") fillRow(box, at.slab, i, at.row);
    else copyRow(box, at.slab, op.from, op.to, at.row);
  }
}

/** Units of work on the chunks of a group; says whether there was room for them. */
function onChunks(box: SimBox, op: Extract<Op, { kind: "restripe" | "move-off" }>, from: number, to: number): boolean {
  const chunks = groupIn(box, op.group)?.chunks;
  if (!chunks) return true;
  if (op.kind === "restripe") {
    for (let unit = from; unit < to; unit += 1) if (!restripe(box, chunks)) return false;
    return true;
  }
  const member = chunks.members.findIndex(({ drive }) => drive === op.place);
  for (let unit = from; unit < to; unit += 1) if (!moveOff(box, chunks, unit, member)) return false;
  return true;
}

/**
 * Does units of a piece of work.
 *
 * @param to up to below which unit
 * @returns whether it can go on; a box that has no room to work in cannot
 */
export function doUnits(box: SimBox, phase: Phase, to: number): boolean {
  const { op, done } = phase;
  let goesOn = true;
  switch (op.kind) {
    case "fill":
    case "copy":
      onDrive(box, op, done, to);
      break;
    case "agree":
    case "rewrite": {
      const group = groupIn(box, op.group);
      const slabs = op.kind === "agree" ? among(group, op.slabs) : rewritten(group);
      for (let unit = done; unit < to; unit += 1) {
        const at = rowAt(slabs, unit);
        if (!at) continue;
        if (op.kind === "rewrite") rewriteRow(box, at.slab, at.row);
        else makeRowAgree(box, at.slab, at.row);
      }
      break;
    }
    case "restripe":
    case "move-off":
      goesOn = onChunks(box, op, done, to);
      break;
    case "check":
      for (let unit = done; unit < to; unit += 1) check(box, op.pool, unit);
      break;
    case "overwrite": {
      const drive = box.drives[op.place];
      for (let block = done; drive && block < to; block += 1) write(drive, block, 0);
      break;
    }
    case "read-through":
    case "wait":
      break;
  }
  phase.done = to;
  return goesOn;
}

/** Parity or copies of a row made, which count from then on. */
function makeRowAgree(box: SimBox, slab: Slab, row: number): void {
  makeAgree(box, slab, row);
  if (slab.agree === row) slab.agree = row + 1;
}

/** What is left of work that has ended: the old shape of what was rewritten is given up. */
export function endOf(box: SimBox, { op }: Phase): void {
  if (op.kind === "rewrite") for (const slab of rewritten(groupIn(box, op.group))) endRewrite(box, slab);
  if (op.kind === "restripe") {
    const chunks = groupIn(box, op.group)?.chunks;
    if (chunks) endRestriping(chunks);
  }
}
