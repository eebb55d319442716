import type { Band } from "../bands/band";
import { usableOf } from "../bands/contents";
import { underParity } from "../bands/underParity";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, LayoutId } from "../document/plan";
import { checkAlike } from "../drives/checks/alike";
import { checkContents } from "../drives/checks/contents";
import { checkHealth } from "../drives/checks/health";
import { checkMixing } from "../drives/checks/mixing";
import { checkTechnology } from "../drives/checks/technology";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import { nameOfDrive, nameOfDriveFirst, shortSize } from "../drives/nameOfDrive";
import { roomOf, type Room } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import type { Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { beyondParity, parityDrivesOf } from "../layouts/parityDrive";
import { problemsOfLayout } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { gapsOf } from "../ledger/gaps";
import { correctedHours, type OwnFactors } from "../logbook/ownTimes";
import { firstFillOf } from "../speeds/firstFill";
import { rebuildsOf, type Rebuild } from "../speeds/rebuild";
import type { Hours } from "../time/hours";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";

/** Everything that the core says of one group. */
export interface GroupPrediction {
  id: string;
  layout: LayoutId;
  drives: string[];
  rooms: Room[];
  /** From the bottom up; none when the group cannot be made. */
  bands: Band[];
  /** In which the layout gives out space, where that is more than 1 MiB. */
  allocationUnit: Bytes | undefined;
  usableBytes: Bytes;
  tolerance: number;
  /** What replacing each drive takes. */
  rebuilds: Rebuild[];
  /** What filling it takes when it is made; null where nothing is filled. */
  firstFill: Hours | null;
  findings: Finding[];
}

/** A drive whose idle top is below this share of it is not worth a word. */
const IDLE_WORTH_SAYING = 0.005;

/**
 * What lies idle on the drives of a group, in one note: which drive holds the others down and what the group would hold
 * without it, where one does; else of which drives how much.
 */
function idleFindings(
  group: Group,
  drives: readonly Drive[],
  rooms: readonly Room[],
  bands: readonly Band[],
  rules: BoxRules,
  family: UnitFamily,
): Finding[] {
  if (bands.length === 0) return [];
  const layout = layoutOf(group.layout);
  const gaps = gapsOf(rooms, bands, layout.allocationUnit);
  const idle = drives.filter((drive) => (gaps.get(drive.id)?.idle ?? 0) >= drive.bytes * IDLE_WORTH_SAYING);
  if (idle.length === 0) return [];
  const bytes = idle.reduce((sum, drive) => sum + (gaps.get(drive.id)?.idle ?? 0), 0);
  const named = idle.map((drive) => nameOfDrive(drive, family));
  const held = heldDown(group, drives, bands, rules, family);
  const [only] = named;
  const message =
    held ??
    (idle.length === 1
      ? `${formatBytes(bytes, family)} of ${only} stays unused until another drive is larger.`
      : `${formatBytes(bytes, family)} stay unused on ` +
        `${idle.length <= MOST_NAMED ? listOf(named) : `${idle.length} of the ${drives.length} drives`} until ` +
        "another drive is larger.");
  return [{ code: "idle-room", severity: "note", message, drives: idle.map((drive) => drive.id) }];
}

/** Up to so many drives a note names. */
const MOST_NAMED = 3;

/** That one small drive holds all others down, and what they would hold without it; null where that is not so. */
function heldDown(
  group: Group,
  drives: readonly Drive[],
  bands: readonly Band[],
  rules: BoxRules,
  family: UnitFamily,
): string | null {
  const layout = layoutOf(group.layout);
  if (!layout.countsSmallest || group.reach || group.kept) return null;
  const [smallest, next] = [...drives].sort((a, b) => a.bytes - b.bytes);
  if (!smallest || !next || next.bytes <= smallest.bytes) return null;
  const others = drives.filter((drive) => drive.id !== smallest.id);
  const without = usableOf(layOutGroup({ layout: group.layout, options: group.options ?? {} }, others, rules));
  if (without <= usableOf(bands)) return null;
  const size = shortSize(smallest, family);
  return (
    `${nameOfDriveFirst(smallest, family)} holds the ${others.length} others down to ${size} each: without it ` +
    `${formatBytes(without, family)}.`
  );
}

/** A drive that does not go with the others of its group is taken out of it, in the plan. */
function withWayOut(finding: Finding): Finding {
  if (finding.severity === "note") return finding;
  const label = plural(finding.drives.length, "Remove it from the group", "Remove them from the group");
  return { ...finding, mend: { label, command: { kind: "leave-group", drives: finding.drives } } };
}

/** What a member is marked to hold is erased when its group is made; of a group that is there it is the group's own. */
function ownData(finding: Finding): Finding {
  if (finding.severity === "block") return withWayOut(finding);
  const [drive = ""] = finding.drives;
  return {
    ...finding,
    mend: {
      label: "The group is there: it is its own data",
      command: { kind: "edit-drive", drive, changes: { contents: null } },
    },
  };
}

/** Data drives that are larger than a parity drive, which protects no more of them than it has itself. */
function largerThanParity(
  group: Group,
  drives: readonly Drive[],
  rooms: readonly Room[],
  family: UnitFamily,
): Finding[] {
  const { dedicatedParity = 0 } = layoutOf(group.layout);
  const { smallest, larger } = beyondParity(rooms, dedicatedParity, group.options?.parityDrives);
  const parity = parityDrivesOf(rooms, dedicatedParity, group.options?.parityDrives);
  const tooLarge = drives.filter((drive) => larger.includes(drive.id));
  return tooLarge.map((drive): Finding => ({
    code: "larger-than-parity",
    severity: "block",
    message:
      `${nameOfDriveFirst(drive, family)} is larger than the parity drive, which cannot protect all of it. Name ` +
      "it as the parity drive, or use it elsewhere.",
    drives: [drive.id],
    mend: {
      label: "Name it as the parity drive",
      command: {
        kind: "set-options",
        group: group.id,
        options: { ...group.options, parityDrives: parity.map((id) => (id === smallest ? drive.id : id)) },
      },
    },
  }));
}

/**
 * Lays a group out on its drives and says what it holds, what it survives and what is wrong with it.
 *
 * @param drives the group's drives, in its order
 * @param family the units in which the findings speak
 * @param used the share of its pool that is in use, 0 to 1
 * @param own how this box differs from the usual rates
 * @example predictGroup({ layout: "raid5", … }, threeOf4TB, rulesOf({ set: "classic-raid" })).usableBytes
 * // 8 001 572 306 944
 */
export function predictGroup(
  group: Group,
  drives: readonly Drive[],
  rules: BoxRules,
  family: UnitFamily = "TB",
  used = 1,
  own: OwnFactors = {},
): GroupPrediction {
  const layout = layoutOf(group.layout);
  const options = group.options ?? {};
  const rooms = drives.map((drive) => roomOf(drive, rules));
  const bands = layOutGroup(group, drives, rules);
  const parity = underParity(bands);
  const fill = firstFillOf(layout, bands, drives, rules);
  const onShelf = drives.filter((drive) => bayOf(drive) === null && !isGone(drive));
  return {
    id: group.id,
    layout: group.layout,
    drives: [...group.drives],
    rooms,
    bands,
    allocationUnit: layout.allocationUnit,
    usableBytes: usableOf(bands),
    tolerance: toleranceOf(bands),
    rebuilds: rebuildsOf(bands, drives, rules, used).map((rebuild) => ({
      ...rebuild,
      hours: rebuild.hours && correctedHours(rebuild.hours, "rebuild", own),
      selfTest: correctedHours(rebuild.selfTest, "self-test", own),
    })),
    firstFill: fill ? correctedHours(fill.hours, "first-fill", own) : null,
    findings: [
      ...problemsOfLayout(layout, group.drives, rules, options),
      ...largerThanParity(group, drives, rooms, family),
      ...drives.flatMap((drive) => [
        ...checkHealth(drive, family, "member"),
        ...checkContents(drive, rules, family).map(ownData),
      ]),
      ...[
        ...drives.flatMap((drive) => checkTechnology(drive, parity, rules, family)),
        ...checkMixing(drives, rules, family),
      ].map(withWayOut),
      ...onShelf.map((drive): Finding => ({
        code: "member-on-shelf",
        severity: "warn",
        message: `${nameOfDriveFirst(drive, family)} belongs to a group but is in no bay. Put it in one.`,
        drives: [drive.id],
        mend: { label: "Put it in a free bay", command: { kind: "seat-drives", drives: [drive.id] } },
      })),
      ...checkAlike(drives),
      ...idleFindings(group, drives, rooms, bands, rules, family),
    ],
  };
}
