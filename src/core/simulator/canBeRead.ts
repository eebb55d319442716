import type { Member, SimBox, SimGroup, Slab } from "./simulatedBox";

/** Whether a member of a slab answers, and holds in a row what it should. */
const has = (box: SimBox, { drive, valid }: Member, row: number): boolean =>
  row < valid && box.drives[drive]?.state === "works";

/**
 * Whether a row has enough of its drives for a box to go on with it. Whether parity and copies have been made yet is
 * not asked: a box does not stop for that, and reads what it gets.
 */
function isRowThere(box: SimBox, { members, code, parity }: Slab, row: number): boolean {
  const there = members.filter((member) => has(box, member, row)).length;
  if (code === "copies") return there > 0;
  if (code !== "ring") return there >= members.length - parity;
  // Copies lie next to each other, round the ring: one of each two has to be there.
  const n = members.length;
  for (let place = 2 * Math.ceil((row * n) / 2); place + 1 < (row + 1) * n; place += 2) {
    const pair = [members[place % n], members[(place + 1) % n]];
    if (!pair.some((member) => member && has(box, member, row))) return false;
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
