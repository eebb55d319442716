import type { LayoutId } from "../document/plan";
import { layoutOf } from "../layouts/registry";

/**
 * What a pool of several equal groups of one layout is called, or null where the trade has no name for it.
 *
 * @param each how many drives each group has
 * @example nameOfSplit("raid5", 2, 3) // "RAID 50"
 */
export function nameOfSplit(layout: LayoutId, groups: number, each: number): string | null {
  const { several } = layoutOf(layout);
  return groups >= 2 && several && (several.of ?? each) === each ? several.name : null;
}
