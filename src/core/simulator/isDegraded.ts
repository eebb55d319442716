import { isRedundant } from "./groups";
import type { Practice } from "./practice";
import type { SimBox, SimGroup } from "./simulatedBox";

/** Whether a group lacks a drive, or has one that does not hold yet what it should. */
function lacks(box: SimBox, { slabs, chunks, drives }: SimGroup): boolean {
  if (drives.some((place) => box.drives[place]?.state !== "works")) return true;
  const isFilled = slabs.every((slab) => !isRedundant(slab) || slab.members.every(({ valid }) => valid >= slab.rows));
  return !isFilled || chunks?.members.some(({ drive, valid, used }) => drive >= 0 && valid < used.length) === true;
}

/**
 * Whether a group of a box has less protection than its layout gives: it lacks a drive, or one of its drives is still
 * being filled.
 *
 * @example isDegraded(practice) // true from the moment at which a drive dies to the end of the rebuild
 */
export const isDegraded = ({ box }: Practice): boolean =>
  box.pools.some(({ groups }) => groups.some((group) => lacks(box, group)));
