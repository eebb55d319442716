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
import { nameOfDrive, nameOfDriveFirst } from "../drives/nameOfDrive";
import { roomOf, type Room } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import type { Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { beyondParity, parityDrivesOf } from "../layouts/parityDrive";
import { problemsOfLayout } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { gapsOf } from "../ledger/gaps";
import { firstFillOf } from "../speeds/firstFill";
import { rebuildsOf, type Rebuild } from "../speeds/rebuild";
import type { Hours } from "../time/hours";
import { plural } from "../words/counted";

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

function idleFindings(
  drives: readonly Drive[],
  rooms: readonly Room[],
  bands: readonly Band[],
  family: UnitFamily,
  unit: Bytes | undefined,
): Finding[] {
  if (bands.length === 0) return [];
  const gaps = gapsOf(rooms, bands, unit);
  return drives.flatMap((drive): Finding[] => {
    const idle = gaps.get(drive.id)?.idle ?? 0;
    if (idle < drive.bytes * IDLE_WORTH_SAYING) return [];
    return [
      {
        code: "idle-room",
        severity: "note",
        message: `${formatBytes(idle, family)} of ${nameOfDrive(drive, family)} lie idle: this layout has no use for them until other drives are larger.`,
        drives: [drive.id],
      },
    ];
  });
}

/** What is wrong with a drive in a group is mended, in the plan, by taking it out. */
function withWayOut(finding: Finding): Finding {
  if (finding.severity === "note") return finding;
  const label = plural(finding.drives.length, "Take it out of the group", "Take them out of the group");
  return { ...finding, mend: { label, command: { kind: "leave-group", drives: finding.drives } } };
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
    message: `${nameOfDriveFirst(drive, family)} is larger than the parity drive, which cannot protect all of it. Name it as the parity drive, or use it elsewhere.`,
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
 * @example predictGroup({ layout: "raid5", … }, threeOf4TB, rulesOf({ set: "classic-raid" })).usableBytes // 8 001 572 306 944
 */
export function predictGroup(
  group: Group,
  drives: readonly Drive[],
  rules: BoxRules,
  family: UnitFamily = "TB",
  used = 1,
): GroupPrediction {
  const layout = layoutOf(group.layout);
  const options = group.options ?? {};
  const rooms = drives.map((drive) => roomOf(drive, rules));
  const bands = layOutGroup(group, drives, rules);
  const parity = underParity(bands);
  const onShelf = drives.filter((drive) => bayOf(drive) === null);
  return {
    id: group.id,
    layout: group.layout,
    drives: [...group.drives],
    rooms,
    bands,
    allocationUnit: layout.allocationUnit,
    usableBytes: usableOf(bands),
    tolerance: toleranceOf(bands),
    rebuilds: rebuildsOf(bands, drives, rules, used),
    firstFill: firstFillOf(layout, bands, drives, rules)?.hours ?? null,
    findings: [
      ...problemsOfLayout(layout, group.drives, rules, options),
      ...largerThanParity(group, drives, rooms, family),
      ...[
        ...drives.flatMap((drive) => [
          ...checkHealth(drive, family),
          ...checkContents(drive, rules, family),
          ...checkTechnology(drive, parity, family),
        ]),
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
      ...idleFindings(drives, rooms, bands, family, layout.allocationUnit),
    ],
  };
}
