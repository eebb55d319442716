import type { Member, SimBox, SimGroup, Slab } from "./simulatedBox";

/** Whether a member of a slab answers, and holds in a row what it should. */
const has = (box: SimBox, { drive, valid }: Member, row: number): boolean =>
  row < valid && box.drives[drive]?.state === "works";

/** Whether a row can be read from the drives that answer, whatever their sectors. */
function isRowThere(box: SimBox, { members, code, parity, agree }: Slab, row: number): boolean {
  const there = members.filter((member) => has(box, member, row)).length;
  if (code === "copies") return members.some((member, i) => (i === 0 || row < agree) && has(box, member, row));
  if (code !== "ring") return there >= members.length - (row < agree ? parity : 0);
  // Copies lie next to each other, round the ring: one of each two has to be there.
  const n = members.length;
  for (let place = 2 * Math.ceil((row * n) / 2); place + 1 < (row + 1) * n; place += 2) {
    const [one, other] = [members[place % n], members[(place + 1) % n]];
    if (one && other && !has(box, one, row) && !(row < agree && has(box, other, row))) return false;
  }
  return true;
}

/**
 * Whether all of a group's data can be read from the drives that answer: a box that finds that it cannot stops the
 * pool. Drives with files of their own go on by themselves, and so do chunks, of which others can still be read.
 *
 * @example canBeRead(box, raid5WithoutTwoDrives) // false
 */
export const canBeRead = (box: SimBox, { slabs }: SimGroup): boolean =>
  slabs.every((slab) => {
    if (slab.independent) return true;
    const rows = [0, 1, slab.rows - 1].filter((row) => row >= 0 && row < slab.rows);
    const now = rows.every((row) => isRowThere(box, slab, row));
    return (
      now && (!slab.rewrite || [0, slab.rewrite.old.rows - 1].every((row) => isRowThere(box, slab.rewrite!.old, row)))
    );
  });
