import { MiB } from "../bytes/bytes";
import { type Band, heightOf } from "./band";

/** What becomes of a group's bands when drives join it. */
export interface ChangedBands {
  /** Bands that run over other drives than before, or at another height: what is on them is rewritten. As they were. */
  rewritten: Band[];
  /** The same, as they then are. */
  become: Band[];
  /** Bands that were not there. */
  made: Band[];
}

/** By less than this an array can differ for what is written before it and rounded, in bytes. */
const ROUNDED = 256 * MiB;

const offsetOn = (band: Band, drive: string) => band.members.find((member) => member.drive === drive)?.offset;

/** Whether two bands begin at the same place of a drive. */
const beginAlike = (one: Band, other: Band): boolean =>
  one.members.some(({ drive, offset }) => offsetOn(other, drive) === offset);

const parityIn = ({ scheme }: Band): number => ("parity" in scheme ? scheme.parity : 0);

const isAlike = (one: Band, other: Band): boolean =>
  one.members.length === other.members.length &&
  heightOf(one) === heightOf(other) &&
  one.scheme.kind === other.scheme.kind &&
  parityIn(one) === parityIn(other) &&
  one.members.every(({ drive }) => offsetOn(other, drive) !== undefined);

/**
 * Which bands a change rewrites, and which it makes; what neither touches stays as it is.
 *
 * @example changedBands(hybridOf448, hybridOf4488) // the bottom band is rewritten, one over the two tops is made
 */
export function changedBands(before: readonly Band[], after: readonly Band[]): ChangedBands {
  const changed: ChangedBands = { rewritten: [], become: [], made: [] };
  for (const band of after) {
    // No change makes a band lower, but by what arrays round and their metadata take: one that ends lower is another,
    // in the place of one that has been given up.
    const was = before.find((each) => beginAlike(each, band) && heightOf(each) - heightOf(band) < ROUNDED);
    if (!was) changed.made.push(band);
    else if (!isAlike(was, band)) {
      changed.rewritten.push(was);
      changed.become.push(band);
    }
  }
  return changed;
}
