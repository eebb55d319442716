import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { firstFillOf } from "../speeds/firstFill";
import type { Hours } from "../time/hours";
import { nameOfSplit } from "./nameOfSplit";

/** A pool of several equal groups: RAID 50, RAID 60, or mirrored pairs. */
export interface SplitChoice {
  name: string;
  layout: LayoutId;
  /** Ids of the drives of each group. */
  groups: string[][];
  usableBytes: Bytes;
  tolerance: number;
  /** What filling the groups takes when they are made, all at the same time; null where nothing is filled. */
  firstFill: Hours | null;
}

/** Drives of like size come into one group, since each group counts all its drives as large as its smallest. */
function splitBySize(drives: readonly Drive[], groups: number): Drive[][] {
  const sorted = [...drives].sort((a, b) => b.bytes - a.bytes);
  const size = drives.length / groups;
  return Array.from({ length: groups }, (_, g) => sorted.slice(g * size, (g + 1) * size));
}

/**
 * The pools of equal groups that can be made of some drives on a box: RAID 50 and 60 in every number of groups, and
 * mirrors in pairs. Only of layouts that the box offers.
 *
 * @example splitChoices(sixOf4TB, rulesOf({ set: "classic-raid" })).map(({ name }) => name)
 * // ["mirrored pairs", "RAID 50"]
 */
export function splitChoices(drives: readonly Drive[], rules: BoxRules): SplitChoice[] {
  const wanted = layouts.filter((layout) => layout.several && rules.layouts.includes(layout.id));
  return wanted.flatMap((layout) => {
    const counts = Array.from({ length: drives.length }, (_, i) => i + 1).filter(
      (groups) => drives.length % groups === 0 && nameOfSplit(layout.id, groups, drives.length / groups) !== null,
    );
    return counts.flatMap((count): SplitChoice[] => {
      if (wrongCount(layout, drives.length / count, rules)) return [];
      const groups = splitBySize(drives, count);
      const bands = groups.map((group) =>
        layout.layOut(
          group.map((drive) => roomOf(drive, rules)),
          { arrayFormat: rules.arrayFormat },
        ),
      );
      const name = nameOfSplit(layout.id, count, drives.length / count);
      if (name === null || bands.some((each) => each.length === 0)) return [];
      return [
        {
          name,
          layout: layout.id,
          groups: groups.map((group) => group.map((drive) => drive.id)),
          usableBytes: bands.reduce((sum, each) => sum + usableOf(each), 0),
          tolerance: toleranceOf(bands.flat()),
          firstFill: firstFillOf(layout, bands.flat(), drives, rules)?.hours ?? null,
        },
      ];
    });
  });
}
