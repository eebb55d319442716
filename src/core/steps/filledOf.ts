import type { Group, Plan, Pool, BoxRules } from "../document/plan";
import { limitedRoom, roomOf } from "../drives/room";
import { spreadChunks } from "../layouts/chunkFill";
import { CHUNK_BYTES, stripesThatFit } from "../layouts/chunks";
import { drivesOf } from "../box/find";
import { usableOfGroup } from "../box/figures";
import { storedIn } from "../box/capacities";

/** How many chunks a stripe has: copies, or data and parity. */
const chunkWidthOf = (group: Pick<Group, "layout" | "options">): number =>
  group.layout === "copies-2"
    ? 2
    : group.layout === "copies-3"
      ? 3
      : (group.options?.data ?? 2) + (group.options?.parity ?? 1);

/** What of each drive of a chunk group holds chunks, in bytes: as it was left, or balanced over all. */
export function filledOf(plan: Plan, pool: Pool, group: Group, rules: BoxRules): Record<string, number> {
  if (group.filled) return { ...group.filled };
  const rooms = drivesOf(plan, group.drives).map(
    (drive) => limitedRoom(roomOf(drive, rules), group.reach?.[drive.id]).length,
  );
  const width = chunkWidthOf(group);
  const data = group.layout === "chunk-parity" ? (group.options?.data ?? 2) : 1;
  const share =
    pool.groups.length <= 1
      ? storedIn(pool)
      : (storedIn(pool) * usableOfGroup(plan, group, rules)) /
        Math.max(
          1,
          pool.groups.reduce((sum, each) => sum + usableOfGroup(plan, each, rules), 0),
        );
  const most = stripesThatFit(
    rooms.map((room) => Math.floor(room / CHUNK_BYTES)),
    width,
  );
  const spread = spreadChunks(rooms, width, Math.min(most, Math.ceil(share / data / CHUNK_BYTES)));
  return Object.fromEntries(group.drives.map((drive, i) => [drive, spread[i] ?? 0]));
}
