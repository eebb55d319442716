import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import { roomOf, type Room } from "../drives/room";
import { survivalOf } from "../failures/survival";
import { toleranceOf } from "../failures/tolerance";
import type { Layout } from "../layouts/layout";
import { wrongCount } from "../layouts/problemsOfLayout";

/** What some drives come to as one group. */
export interface GroupValue {
  usableBytes: Bytes;
  tolerance: number;
  /** Of all sets of one drive more than it tolerates, how many lose data. */
  fatalSets: number;
}

/**
 * A function that values a group of some drives under a layout, from its bands; null where it cannot be made or holds
 * nothing. Layouts in which every drive counts as large as the smallest are laid out once for each count, smallest and
 * first drive.
 *
 * @param drives smallest first, as the function wants them
 * @example groupValues(singleParity, rules)(threeOf4TB)
 * // { usableBytes: 8 001 572 306 944, tolerance: 1, fatalSets: 3 }
 */
export function groupValues(layout: Layout, rules: BoxRules): (drives: readonly Drive[]) => GroupValue | null {
  const known = new Map<string, GroupValue | null>();
  const rooms = new Map<string, Room>();
  const room = (drive: Drive): Room => {
    const old = rooms.get(drive.id);
    if (old) return old;
    const made = roomOf(drive, rules);
    rooms.set(drive.id, made);
    return made;
  };
  const value = (drives: readonly Drive[]): GroupValue | null => {
    if (wrongCount(layout, drives.length, rules)) return null;
    const bands = layout.layOut(drives.map(room), { arrayFormat: rules.arrayFormat, options: {} });
    if (bands.length === 0) return null;
    const tolerance = toleranceOf(bands);
    const next = survivalOf(
      bands,
      drives.map((drive) => drive.id),
      tolerance + 1,
    ).at(-1);
    return {
      usableBytes: usableOf(bands),
      tolerance,
      fatalSets: next && next.failed === tolerance + 1 ? next.sets - next.survived : 0,
    };
  };
  if (!layout.countsSmallest) return value;
  return (drives) => {
    // Smallest first, so that the first is the smallest too.
    const key = `${drives.length} ${drives[0]?.bytes}`;
    const old = known.get(key);
    if (old !== undefined) return old;
    const made = value(drives);
    known.set(key, made);
    return made;
  };
}
