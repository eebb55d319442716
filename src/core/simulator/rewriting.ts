import type { SimBox, Slab } from "./simulatedBox";
import { dataBlocks, dataPerRow, GONE, readAt, type Source, writeRow } from "./slabs";
import { wanted } from "./wanted";

// A slab written anew in another shape, row by row in its own place. Where the new shape holds as much in a row or
// more, it goes up, and where it holds less, it goes down: so what is still in the old shape is never overwritten
// unread.

/**
 * Begins to give a slab a new shape; `rewriteRow` then moves row by row, and `endRewrite` ends it.
 *
 * @example reshape(slab, { members: [...slab.members, oneMore] })
 */
export function reshape(slab: Slab, shape: Partial<Slab>): void {
  const old: Slab = { ...slab, members: slab.members.map((member) => ({ ...member })), rewrite: null };
  Object.assign(slab, shape);
  slab.rewrite = { old, front: 0, down: dataPerRow(slab) < dataPerRow(old) };
  for (const member of slab.members) member.valid = slab.rows;
}

/** What the data of a slab holds as it stands in its old shape; made once a rewrite, since every block asks it. */
const sources = new WeakMap<object, { box: SimBox; source: Source }>();

function sourceOf(box: SimBox, slab: Slab, old: Slab): Source {
  const known = slab.rewrite && sources.get(slab.rewrite);
  if (known?.box === box) return known.source;
  const held = dataBlocks(slab);
  const source: Source = (data, at) => {
    // Above what both shapes hold there is nothing yet.
    const byte = at < held ? readAt(box, old, at) : 0;
    // What could not be read is as wrong in its new place as in its old one.
    return byte === GONE ? wanted(data, at) ^ 0xff : byte;
  };
  if (slab.rewrite) sources.set(slab.rewrite, { box, source });
  return source;
}

/** The next row of a slab in its new shape, from what stands in the old one: none of it has been moved yet. */
export function rewriteRow(box: SimBox, slab: Slab, unit: number): void {
  const { rewrite } = slab;
  if (!rewrite) return;
  writeRow(box, slab, rewrite.down ? slab.rows - 1 - unit : unit, sourceOf(box, slab, rewrite.old));
  rewrite.front = unit + 1;
}

/** Ends it: the old shape is given up, the new space is there, and somebody stores something in it. */
export function endRewrite(box: SimBox, slab: Slab): void {
  if (!slab.rewrite) return;
  const held = dataBlocks(slab);
  slab.rewrite = null;
  for (let row = Math.floor(held / dataPerRow(slab)); row < slab.rows; row += 1)
    writeRow(box, slab, row, (data, at) => (at < held ? Math.max(0, readAt(box, slab, at)) : wanted(data, at)));
}
