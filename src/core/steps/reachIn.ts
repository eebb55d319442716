import { drivesOf } from "../box/find";
import type { BoxRules, Group, Plan } from "../document/plan";
import { limitedRoom, roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";

/** A widened hybrid keeps its bands where they are: a drive that ends inside one is taken in up to the band below. */
export function reachIn(plan: Plan, group: Group, drive: string, rules: BoxRules): number | undefined {
  const [own] = drivesOf(plan, [drive]);
  if (!own || !layoutOf(group.layout).cutsAtSizes) return undefined;
  const room = roomOf(own, rules);
  const cuts = [
    ...new Set(
      drivesOf(plan, group.drives).map((member) => limitedRoom(roomOf(member, rules), group.reach?.[member.id]).length),
    ),
  ].sort((a, b) => a - b);
  if (room.length >= (cuts.at(-1) ?? 0)) return undefined;
  return cuts.filter((cut) => cut <= room.length).at(-1) ?? 0;
}
