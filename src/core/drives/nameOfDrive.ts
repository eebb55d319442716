import { formatBytes, UNIT_SPACE, type UnitFamily } from "../bytes/formatBytes";
import { soldAs } from "../bytes/nominalBytes";
import type { Drive } from "../document/plan";
import { capital } from "../words/capital";
import { bayOf } from "./drive";

/**
 * A drive's size in few characters: in decimal units the size on its label where it is a standard one, otherwise
 * the figure itself.
 *
 * @example shortSize({ bytes: 4_000_787_030_016 }, "TB") // "4 TB"
 * @example shortSize({ bytes: 4_000_787_030_016 }, "TiB") // "3.64 TiB"
 */
export function shortSize(drive: Pick<Drive, "bytes">, family: UnitFamily): string {
  const gigabytes = family === "TB" ? soldAs(drive.bytes) : null;
  if (gigabytes === null) return formatBytes(drive.bytes, family).replace(/\.0+(?=\D)/, "");
  return gigabytes >= 1000 ? `${gigabytes / 1000}${UNIT_SPACE}TB` : `${gigabytes}${UNIT_SPACE}GB`;
}

/** A drive by its number in the plan, where nothing else tells it from another. */
const numberOf = ({ id }: Pick<Drive, "id">): string =>
  id.replace(/^d(?=\d+$)/, "no. ").replace(/^b(?=\d+$)/, "new no. ");

/**
 * What tells a drive from others of its size, in few characters: the end of its serial, its owner's name for it, else
 * its number in the plan.
 *
 * @example markOfDrive({ id: "d5", serial: "ORL-4418", label: "" }) // "…4418"
 * @example markOfDrive({ id: "d5", label: "" }) // "no. 5"
 */
export const markOfDrive = (drive: Pick<Drive, "id" | "serial" | "label">): string =>
  drive.serial ? `…${drive.serial.slice(-4)}` : drive.label || numberOf(drive);

/**
 * A drive in the middle of a sentence, so that it cannot be mistaken for another: size, bay and serial; on the shelf
 * without a serial, its number in the plan; of one that has failed or is missing, that.
 *
 * @example nameOfDrive(missingDrive) // "the missing 4 TB drive from bay 2 (serial ORL-4418)"
 * @example nameOfDrive(drive) // "the 4 TB drive in bay 2 (serial ORL-4418)"
 */
export function nameOfDrive(drive: Drive, family: UnitFamily = "TB"): string {
  const bay = bayOf(drive);
  const where =
    drive.state === "missing"
      ? drive.lastBay === undefined
        ? ""
        : ` from bay ${drive.lastBay}`
      : bay === null
        ? " on the shelf"
        : ` in bay ${bay}`;
  const other = drive.label || (bay === null ? numberOf(drive) : "");
  const which = drive.serial ? ` (serial ${drive.serial})` : other && ` (${other})`;
  return `the ${drive.state ? `${drive.state} ` : ""}${shortSize(drive, family)} drive${where}${which}`;
}

/** The same at the start of a sentence. */
export function nameOfDriveFirst(drive: Drive, family: UnitFamily = "TB"): string {
  const name = nameOfDrive(drive, family);
  return capital(name);
}
