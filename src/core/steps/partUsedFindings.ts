import { usableOf } from "../bands/contents";
import { partUsed } from "../bands/partUsed";
import { withKept } from "../box/arrays";
import { usableOfGroup } from "../box/figures";
import { drivesOf } from "../box/find";
import type { Bytes } from "../bytes/bytes";
import { formatBytes } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, KeptArray, Plan } from "../document/plan";
import { nameOfDrive, nameOfDriveFirst } from "../drives/nameOfDrive";
import { bytesForRoom, roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { endOfKept } from "../layouts/keptArrays";
import { type LaidOut, layOutGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { against, type StepSetting } from "./stepModule";

// A layout that cuts drives at their sizes keeps its bands where they are. A drive that comes in joins those that it
// covers whole; what of it lies beside a band that ends above it is unused until the pool is made anew.

/** Below this share of a drive it is not worth a word. */
const WORTH_SAYING = 0.005;

/** A group whose bands stay where they are, for others drives in it; without what waits for a claim. */
function keeping(plan: Plan, group: Group, rules: BoxRules): LaidOut {
  const { reach: _waits, ...kept } = withKept(plan, group, rules);
  return kept;
}

/** How much of a drive lies beside bands that stand and that it does not cover whole, in bytes. */
function besideStanding(length: Bytes, kept: readonly KeptArray[]): Bytes {
  const top = Math.max(0, ...kept.map(endOfKept));
  const covered = kept.reduce((sum, each) => (endOfKept(each) <= length ? sum + endOfKept(each) - each.from : sum), 0);
  return Math.max(0, Math.min(length, top) - covered);
}

/** The least size of a drive of which all would be used, of those that are larger; in bytes. */
function wholeFrom(plan: Plan, group: Group, drive: Drive, others: readonly Drive[], rules: BoxRules): Bytes | null {
  const length = roomOf(drive, rules).length;
  const edges = [
    ...(keeping(plan, group, rules).kept ?? []).map(endOfKept),
    ...others.map((each) => roomOf(each, rules).length),
  ].filter((edge) => edge > length);
  return edges.length === 0 ? null : bytesForRoom(Math.min(...edges), rules);
}

/**
 * That some drives which come into a group are used only in part, and how much of them is; for layouts that cut drives
 * at their sizes, and nothing for others.
 *
 * @param members the drives that the group would have
 * @param coming those of them that are looked at
 */
export function partUsedFindings(
  plan: Plan,
  group: Group,
  members: readonly Drive[],
  coming: readonly Drive[],
  { rules, family }: StepSetting,
): Finding[] {
  if (!layoutOf(group.layout).cutsAtSizes || coming.length === 0) return [];
  const { kept = [] } = keeping(plan, group, rules);
  // Most drives end at an edge, or above all bands: the bands are laid out only where one does not.
  const besides = (drive: Drive) => besideStanding(roomOf(drive, rules).length, kept);
  const inside = coming.filter((drive) => besides(drive) >= drive.bytes * WORTH_SAYING);
  if (inside.length === 0) return [];
  const bands = layOutGroup(keeping(plan, group, rules), members, rules);
  return inside.flatMap((drive) => {
    const { used, beside } = partUsed(bands, roomOf(drive, rules));
    if (used === 0 || beside < drive.bytes * WORTH_SAYING) return [];
    const whole = wholeFrom(
      plan,
      group,
      drive,
      members.filter((each) => each !== drive),
      rules,
    );
    const help = whole === null ? "" : ` One of ${formatBytes(whole, family)} would be used whole.`;
    const message =
      `Of ${nameOfDrive(drive, family)} ${formatBytes(used, family)} will be used: it ends between two heights ` +
      `at which the group is cut, which stay as they are, and ${formatBytes(beside, family)} stay unused until ` +
      `the pool is made again.${help}`;
    return [against("warn", "ends-inside-a-band", message, [drive.id])];
  });
}

/** That drives which join bring nothing, since they cover no band whole, and from which size on one would. */
export function nothingGained(
  plan: Plan,
  group: Group,
  joining: readonly Drive[],
  { rules, family }: StepSetting,
): Finding[] {
  const [first] = joining;
  if (!first || !layoutOf(group.layout).cutsAtSizes) return [];
  const members = drivesOf(plan, group.drives);
  const kept = keeping(plan, group, rules);
  // Against the group with all of its space claimed, so that what waits for that is not counted for the new drives.
  const usableWith = (drives: readonly Drive[]) => usableOf(layOutGroup(kept, [...members, ...drives], rules));
  const now = Math.max(usableOfGroup(plan, group, rules), usableWith([]));
  if (usableWith(joining) > now) return [];
  const sizes = [...(kept.kept ?? []).map(endOfKept), ...members.map((each) => roomOf(each, rules).length)]
    .map((length) => bytesForRoom(length, rules))
    .sort((a, b) => a - b);
  const helps = sizes.find((bytes) => usableWith([{ ...first, bytes }]) > now);
  const help = helps === undefined ? "" : ` One of ${formatBytes(helps, family)} would bring space.`;
  const which = joining.length === 1 ? nameOfDriveFirst(first, family) : `None of the ${joining.length} drives`;
  const message =
    joining.length === 1
      ? `${which} would bring nothing: the group stays cut at the heights that it has, and it reaches none of ` +
        `the next.${help}`
      : `${which} would bring anything: the group stays cut at the heights that it has, and they reach none of ` +
        `the next.${help}`;
  return [
    against(
      "block",
      "nothing-gained",
      message,
      joining.map((drive) => drive.id),
    ),
  ];
}
