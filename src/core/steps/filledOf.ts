import { storedIn } from "../box/capacities";
import { usableOfGroup } from "../box/figures";
import { drivesOf } from "../box/find";
import type { BoxRules, Group, Plan, Pool } from "../document/plan";
import { spreadChunks } from "../layouts/chunkFill";
import { CHUNK_BYTES, stripesThatFit } from "../layouts/chunks";
import { roomsOfGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";

/** What of each drive of a chunk group holds chunks, in bytes: as it was left, or balanced over all. */
export function filledOf(plan: Plan, pool: Pool, group: Group, rules: BoxRules): Record<string, number> {
  if (group.filled) return { ...group.filled };
  const rooms = roomsOfGroup(group, drivesOf(plan, group.drives), rules).map((room) => room.length);
  const stripe = layoutOf(group.layout).stripe(group.options ?? {});
  const [data, copies] = [Number(stripe.data), Number(stripe.copies)];
  const width = data * copies + stripe.parity;
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
