import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, Group } from "../document/plan";
import { leastToJoin } from "../drives/checks/joining";
import { roomOf } from "../drives/room";
import { fewestDrives, wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { rulesForJoining } from "../layouts/joins";
import { takesAnyDrive, widensByDrive } from "../layouts/widens";

/** How a pool can grow later under the rules of its box. */
export interface Growth {
  /**
   * By one drive: the smallest that its group would take, and what a drive as large as the largest would add. Null
   * where it cannot.
   */
  byDrive: { leastBytes: Bytes; gainBytes: Bytes } | null;
  /** By a further group: how many drives that takes at least, and what as many as its last group has would add. */
  byGroup: { drives: number; gainBytes: Bytes } | null;
  /** By replacing every drive with a larger one. */
  byReplacing: boolean;
}

/** A group and its drives in its order. */
export interface GroupOfDrives {
  group: Pick<Group, "layout" | "options">;
  drives: readonly Drive[];
}

const usableWith = ({ group }: GroupOfDrives, drives: readonly Drive[], rules: BoxRules): Bytes | null => {
  const layout = layoutOf(group.layout);
  if (wrongCount(layout, drives.length, rules, group.options)) return null;
  return usableOf(
    layout.layOut(
      drives.map((drive) => roomOf(drive, rules)),
      { arrayFormat: rules.arrayFormat, options: group.options ?? {} },
    ),
  );
};

/**
 * How a pool of these groups can grow later on a box.
 *
 * @param groups at least one, each with a layout that can be made of its drives
 * @example growthOf([{ group: { layout: "raid5" }, drives: threeOf4TB }], rulesOf({ set: "fixed-group" })).byDrive
 * // null: only by a further group
 */
export function growthOf(groups: readonly GroupOfDrives[], rules: BoxRules): Growth {
  const widenable = groups.filter(({ group }) => widensByDrive(layoutOf(group.layout), rules));
  const gains = widenable.flatMap((each) => {
    const largest = each.drives.reduce((best, drive) => (drive.bytes > best.bytes ? drive : best));
    const now = usableWith(each, each.drives, rules);
    const then = usableWith(each, [...each.drives, { ...largest, id: "one more" }], rules);
    // Drives with file systems of their own, or end to end, need not be like the others.
    const layout = layoutOf(each.group.layout);
    const leastBytes = layout.joinsAnySize ? 1 : leastToJoin(each.drives, rulesForJoining(layout, rules));
    return now === null || then === null || then <= now ? [] : [{ leastBytes, gainBytes: then - now }];
  });
  const byDrive = gains.reduce<Growth["byDrive"]>(
    (best, each) => (best === null || each.gainBytes > best.gainBytes ? each : best),
    null,
  );
  const last = groups.at(-1);
  const another = last && !takesAnyDrive(layoutOf(last.group.layout)) ? usableWith(last, last.drives, rules) : null;
  return {
    byDrive,
    byGroup:
      last && another !== null
        ? {
            drives: Math.max(
              fewestDrives(layoutOf(last.group.layout), rules, last.group.options),
              rules.widening === "further-group" ? last.drives.length : 0,
            ),
            gainBytes: another,
          }
        : null,
    byReplacing: true,
  };
}
