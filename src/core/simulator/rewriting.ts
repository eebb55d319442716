import type { SimBox, Slab } from "./simulatedBox";
import { dataBlocks, dataPerRow, GONE, readAt, writeRow } from "./slabs";
import { wanted } from "./wanted";

// A slab written anew in another shape, row by row in its own place. Where the new shape holds as much in a row or
// more, it goes up, and where it holds less, it goes down: so what is still in the old shape is never overwritten
// unread.

/** Begins to give a slab a new shape. */
export function reshape(slab: Slab, shape: Partial<Slab>): void {
  const old: Slab = { ...slab, members: slab.members.map((member) => ({ ...member })), rewrite: null };
  Object.assign(slab, shape);
  slab.rewrite = { old, front: 0, down: dataPerRow(slab) < dataPerRow(old) };
  for (const member of slab.members) member.valid = slab.rows;
}

/** The next row of a slab in its new shape, from what stands in the old one. */
export function rewriteRow(box: SimBox, slab: Slab, unit: number): void {
  const { rewrite } = slab;
  if (!rewrite) return;
  const held = dataBlocks(slab);
  const row = rewrite.down ? slab.rows - 1 - unit : unit;
  writeRow(box, slab, row, (data, at) => {
    const byte = at < held ? readAt(box, slab, at) : 0;
    // What could not be read is as wrong in its new place as in its old one.
    return byte === GONE ? wanted(data, at) ^ 0xff : byte;
  });
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
