import { groupOfDrive } from "../box/members";
import type { Plan } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import type { Running } from "./stepModule";

/**
 * Whether a drive can be rebuilt in one go with those that a running step rebuilds: they are of the same group, of a
 * layout that does so. It then takes as long as the one that takes longest.
 *
 * @param plan the box once that step has begun, its new drives in their places
 */
export function rebuiltTogether(drive: string, { cost }: Running, plan: Plan): boolean {
  const group = groupOfDrive(plan, drive)?.group;
  return (
    group !== undefined &&
    layoutOf(group.layout).rebuildsTogether === true &&
    cost.unready.length > 0 &&
    cost.unready.every((id) => group.drives.includes(id))
  );
}
