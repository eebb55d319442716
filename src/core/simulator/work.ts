import { endRestriping, fillBlock, moveOff, placesOn, repairStripe, restripe } from "./chunks";
import { isRedundant } from "./groups";
import { groupNamed, type SimBox, type SimDrive, type SimGroup, type Slab } from "./simulatedBox";
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
  /** What a group has gained is written; it counts once that has ended. */
  | { kind: "gain"; group: string }
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

/** What there is of work of a kind. */
interface Kind<K extends Op["kind"]> {
  /** How many units it has, as the box is when it begins. */
  units: (box: SimBox, op: Extract<Op, { kind: K }>) => number;
  /** Does units `from` to below `to`; says whether there is space to go on. */
  run: (box: SimBox, op: Extract<Op, { kind: K }>, from: number, to: number) => boolean;
}

/** How many units work on what one drive of a group has takes. */
function unitsOnDrive(box: SimBox, id: string, place: number): number {
  const group = groupIn(box, id);
  const member = group?.chunks?.members.find(({ drive }) => drive === place);
  return member ? member.used.length : lengthOf(slabsWith(group, place));
}

/** What is done to each row that a drive of a group has. */
function eachRow(
  box: SimBox,
  { id, place, from, to }: { id: string; place: number; from: number; to: number },
  act: (slab: Slab, i: number, row: number) => void,
): void {
  const slabs = slabsWith(groupIn(box, id), place);
  for (let unit = from; unit < to; unit += 1) {
    const at = rowAt(slabs, unit);
    const i = at?.slab.members.findIndex(({ drive }) => drive === place) ?? -1;
    if (at) act(at.slab, i, at.row);
  }
}

/** The chunks of a group, and which of their members a drive is. */
function chunksWith(box: SimBox, id: string, place: number) {
  const chunks = groupIn(box, id)?.chunks;
  const member = chunks?.members.findIndex(({ drive }) => drive === place) ?? -1;
  return chunks && member >= 0 ? { chunks, member } : null;
}

/** Filled from the others: row by row, or chunk by chunk. */
const fill: Kind<"fill"> = {
  units: (box, { group, place }) => unitsOnDrive(box, group, place),
  run: (box, { group, place }, from, to) => {
    const of = chunksWith(box, group, place);
    if (!of) eachRow(box, { id: group, place, from, to }, (slab, i, row) => fillRow(box, slab, i, row));
    else {
      const places = placesOn(of.chunks, of.member);
      for (let block = from; block < to; block += 1) fillBlock(box, of.chunks, of.member, block, places);
    }
    return true;
  },
};

/** A block of one drive written to another, where it can be read. */
function copyBlock(old: SimDrive | undefined, next: SimDrive | undefined, block: number): void {
  if (old?.state !== "works" || !next || old.unreadable?.has(block)) return;
  write(next, block, old.cells[block] ?? 0);
}

const copy: Kind<"copy"> = {
  units: (box, { group, from }) => unitsOnDrive(box, group, from),
  run: (box, { group, from: place, to: by }, from, to) => {
    const [old, next] = [box.drives[place], box.drives[by]];
    if (chunksWith(box, group, place)) for (let block = from; block < to; block += 1) copyBlock(old, next, block);
    else
      eachRow(box, { id: group, place, from, to }, (slab, i, row) =>
        copyBlock(old, next, (slab.members[i]?.from ?? 0) + row),
      );
    return true;
  },
};

/** Units of work on the rows of some slabs, one after the other. */
function onRows(slabs: readonly Slab[], from: number, to: number, act: (slab: Slab, row: number) => void): boolean {
  for (let unit = from; unit < to; unit += 1) {
    const at = rowAt(slabs, unit);
    if (at) act(at.slab, at.row);
  }
  return true;
}

const agree: Kind<"agree"> = {
  units: (box, { group, slabs }) => lengthOf(among(groupIn(box, group), slabs)),
  run: (box, { group, slabs }, from, to) =>
    onRows(among(groupIn(box, group), slabs), from, to, (slab, row) => {
      makeAgree(box, slab, row);
      // It counts from then on.
      if (slab.agree === row) slab.agree = row + 1;
    }),
};

const rewrite: Kind<"rewrite"> = {
  units: (box, { group }) => lengthOf(rewritten(groupIn(box, group))),
  run: (box, { group }, from, to) =>
    onRows(rewritten(groupIn(box, group)), from, to, (slab, row) => rewriteRow(box, slab, row)),
};

const restriping: Kind<"restripe"> = {
  units: (box, { group }) => {
    const chunks = groupIn(box, group)?.chunks;
    const { count = 0, k = 0 } = chunks?.rewrite?.old ?? {};
    return Math.ceil((count * k) / (chunks?.k ?? 1));
  },
  run: (box, { group }, from, to) => {
    const chunks = groupIn(box, group)?.chunks;
    for (let unit = from; chunks && unit < to; unit += 1) if (!restripe(box, chunks)) return false;
    return true;
  },
};

const movingOff: Kind<"move-off"> = {
  units: (box, { group }) => groupIn(box, group)?.chunks?.count ?? 0,
  run: (box, { group, place }, from, to) => {
    const of = chunksWith(box, group, place);
    for (let unit = from; of && unit < to; unit += 1) if (!moveOff(box, of.chunks, unit, of.member)) return false;
    return true;
  },
};

const check: Kind<"check"> = {
  units: (box, { pool }) =>
    groupsOf(box, pool).reduce((sum, { slabs, chunks }) => sum + lengthOf(slabs) + (chunks?.count ?? 0), 0),
  run: (box, { pool }, from, to) => {
    let before = 0;
    for (const { slabs, chunks } of groupsOf(box, pool)) {
      onRows(slabs, Math.max(0, from - before), to - before, (slab, row) => repairRow(box, slab, row));
      before += lengthOf(slabs);
      const last = Math.min(to - before, chunks?.count ?? 0);
      for (let s = Math.max(0, from - before); chunks && s < last; s += 1) repairStripe(box, chunks, s);
      before += chunks?.count ?? 0;
    }
    return true;
  },
};

const overwrite: Kind<"overwrite"> = {
  units: (box, { place }) => box.drives[place]?.blocks ?? 0,
  run: (box, { place }, from, to) => {
    const drive = box.drives[place];
    for (let block = from; drive && block < to; block += 1) write(drive, block, 0);
    return true;
  },
};

const KINDS: { readonly [K in Op["kind"]]: Kind<K> } = {
  fill,
  copy,
  agree,
  rewrite,
  restripe: restriping,
  "move-off": movingOff,
  check,
  overwrite,
  "read-through": { units: (box, { place }) => box.drives[place]?.blocks ?? 0, run: () => true },
  gain: { units: () => 1, run: () => true },
  wait: { units: () => 1, run: () => true },
};

/** The kind of a piece of work; they match by construction. */
const kindOf = <K extends Op["kind"]>({ kind }: { kind: K }): Kind<K> => KINDS[kind] as Kind<K>;

/**
 * How many units a piece of work has, as the box is when it begins.
 *
 * @example unitsOf(box, { kind: "overwrite", place: 0 }) // as many as the drive has blocks
 */
export const unitsOf = (box: SimBox, op: Op): number => kindOf(op).units(box, op);

/**
 * Does units of a piece of work.
 *
 * @param to up to below which unit
 * @returns whether it can go on; a box that has no space to work in cannot
 */
export function doUnits(box: SimBox, phase: Phase, to: number): boolean {
  const goesOn = kindOf(phase.op).run(box, phase.op, phase.done, to);
  phase.done = to;
  return goesOn;
}

/** What is left of work that has ended: the old shape of what was rewritten is given up. */
export function endOf(box: SimBox, { op }: Phase): void {
  if (op.kind === "rewrite") for (const slab of rewritten(groupIn(box, op.group))) endRewrite(box, slab);
  if (op.kind === "restripe") {
    const chunks = groupIn(box, op.group)?.chunks;
    if (chunks) endRestriping(chunks);
  }
}
