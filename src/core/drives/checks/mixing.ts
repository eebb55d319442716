import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive, Mixing } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { plural } from "../../words/counted";
import { listOf } from "../../words/listOf";
import { nameOfDrive, nameOfDriveFirst } from "../nameOfDrive";

/** The drives that are not of the commonest kind; the first kind wins a tie. */
function oddOnes<K>(drives: readonly Drive[], kindOf: (drive: Drive) => K): Drive[] {
  const counts = new Map<K, number>();
  for (const drive of drives) counts.set(kindOf(drive), (counts.get(kindOf(drive)) ?? 0) + 1);
  const common = [...counts].reduce<[K, number] | null>(
    (best, each) => (best === null || each[1] > best[1] ? each : best),
    null,
  );
  return common ? drives.filter((drive) => kindOf(drive) !== common[0]) : [];
}

function finding(code: string, mixing: Mixing, odd: readonly Drive[], message: string): Finding[] {
  if (mixing === "fine" || odd.length === 0) return [];
  return [{ code, severity: mixing, message, drives: odd.map((drive) => drive.id) }];
}

const listIn = (family: UnitFamily) => (drives: readonly Drive[]) =>
  listOf(drives.map((drive, i) => (i === 0 ? nameOfDriveFirst(drive, family) : nameOfDrive(drive, family))));
const verb = (drives: readonly Drive[], one: string, many: string) => plural(drives.length, one, many);

/** Whether the drives of a group go together by the box's rules: medium, interface, logical sectors, USB. */
export function checkMixing(
  drives: readonly Drive[],
  rules: Pick<BoxRules, "mixedMedia" | "mixedBuses" | "mixedSectors" | "usbMembers">,
  family: UnitFamily = "TB",
): Finding[] {
  const list = listIn(family);
  const media = oddOnes(drives, (drive) => drive.medium);
  const usb = drives.filter((drive) => drive.bus === "usb");
  const buses = oddOnes(
    drives.filter((drive) => drive.bus !== "usb"),
    (drive) => drive.bus,
  );
  const sectors = oddOnes(drives, (drive) => drive.logicalSector);
  return [
    ...finding(
      "mixed-media",
      rules.mixedMedia,
      media,
      `${list(media)} ${verb(media, "is of another kind", "are of another kind")} than the rest: hard disks ` +
        "and flash do not belong in one group. Make the group of one kind.",
    ),
    ...finding(
      "mixed-sectors",
      rules.mixedSectors,
      sectors,
      `${list(sectors)} ${verb(sectors, "has", "have")} logical sectors of ${sectors[0]?.logicalSector} bytes, ` +
        "unlike the rest. Choose drives with the same logical sector size.",
    ),
    ...finding(
      "usb-member",
      rules.usbMembers,
      usb,
      `${list(usb)} ${verb(usb, "is", "are")} attached by USB. A plug pulled by accident then counts as a ` +
        `failed drive; put ${verb(usb, "it", "them")} in a bay.`,
    ),
    ...finding(
      "mixed-buses",
      rules.mixedBuses,
      buses,
      `${list(buses)} ${verb(buses, "has", "have")} another interface than the rest ` +
        `(${[...new Set(buses.map((drive) => drive.bus.toUpperCase()))].join(", ")}). Check that your box takes ` +
        "them in one group.",
    ),
  ];
}
