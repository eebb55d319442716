import { storedIn } from "../box/capacities";
import { usableOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { isAvailable } from "../box/members";
import { GiB, type Bytes } from "../bytes/bytes";
import { formatBytes } from "../bytes/formatBytes";
import type { Plan, Pool, Step } from "../document/plan";
import type { Finding } from "../findings/finding";
import { roomsOfGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { filledOf } from "./filledOf";
import { against, type StepSetting } from "./stepModule";
import { ownValue } from "../records/ownValue";

/** Measured: with a tenth free, and so much of each drive, every change worked; on fuller pools many failed. */
const FREE_SHARE = 0.1;
const FREE_PER_DRIVE = 4 * GiB;

/** What of a pool's drives holds no chunks, in bytes. */
function unfilled(plan: Plan, pool: Pool, { rules }: StepSetting): Bytes {
  return pool.groups.reduce((sum, group) => {
    const filled = filledOf(plan, pool, group, rules);
    const rooms = roomsOfGroup(group, drivesOf(plan, group.drives), rules);
    return sum + rooms.reduce((free, room) => free + Math.max(0, room.length - (ownValue(filled, room.drive) ?? 0)), 0);
  }, 0);
}

/** A free drive that could join first: its room is then there for the chunks to move through. */
function addFirst(plan: Plan, pool: Pool, step: Step, uses: readonly string[]): Finding["mend"] {
  const free = plan.drives.find((drive) => isAvailable(plan, drive.id) && !uses.includes(drive.id));
  const group = pool.groups[0];
  if (!free || !group) return undefined;
  return {
    label: "Add a drive first",
    command: {
      kind: "insert-steps",
      before: step.id,
      steps: [{ kind: "widen-group", group: group.id, drives: [free.id] }],
    },
  };
}

/**
 * That a chunk pool has free room *before* a change that moves its chunks: the room that there would be after it does
 * not help. For a pool of which it is not known how much is stored, how much has to be free is said.
 *
 * @param does what would be done, to begin a sentence: "Rebalancing", and with which drives
 */
export function roomForChunks(
  plan: Plan,
  pool: Pool,
  step: Step,
  { does, uses }: { does: string; uses: readonly string[] },
  setting: StepSetting,
): Finding[] {
  if (!pool.groups.some((group) => layoutOf(group.layout).chunked)) return [];
  const { rules, family } = setting;
  const usable = usableOfPool(plan, pool, rules);
  const drives = pool.groups.reduce((sum, group) => sum + group.drives.length, 0);
  const share = FREE_SHARE * usable - (usable - storedIn(pool));
  const perDrive = FREE_PER_DRIVE * drives - unfilled(plan, pool, setting);
  const short = Math.max(share, perDrive);
  if (short <= 0) return [];
  const keep =
    `${formatBytes(FREE_SHARE * usable, family)} of it free, and ${formatBytes(FREE_PER_DRIVE, family)} of each ` +
    "drive";
  if (pool.volumes.some((volume) => volume.usedBytes === undefined)) {
    const message = `How much is stored is not known for every volume. ${does} needs free space to work in: keep ${keep}.`;
    return [against("warn", "little-room-to-work", message)];
  }
  const message =
    `${does} a pool that is so full can stop for lack of space, and leave it read-only. Free ` +
    `${formatBytes(short, family)} first, or add a drive: keep ${keep}.`;
  return [against("block", "pool-too-full", message, [], addFirst(plan, pool, step, uses))];
}
