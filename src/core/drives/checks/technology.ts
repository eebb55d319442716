import { TiB } from "../../bytes/bytes";
import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";

/** Where partitions of the older style end. */
const MBR_END = 2 * TiB;

/** What a drive's make-up says against it: partitions that end at 2 TiB, or shingled recording under parity. */
export function checkTechnology(
  drive: Drive,
  underParity: boolean,
  rules: Pick<BoxRules, "partitioning">,
  family: UnitFamily = "TB",
): Finding[] {
  const findings: Finding[] = [];
  if (drive.bytes > MBR_END && rules.partitioning === "mbr") {
    findings.push({
      code: "mbr-too-small",
      severity: "block",
      message:
        `${nameOfDriveFirst(drive, family)} is larger than 2 TiB, where the partitions that your box makes end. ` +
        "Choose one of up to 2 TiB, or correct how your box partitions drives.",
      drives: [drive.id],
    });
  } else if (drive.bytes > MBR_END && drive.partitionTable === "mbr") {
    findings.push({
      code: "mbr-replaced",
      severity: "note",
      message:
        `${nameOfDriveFirst(drive, family)} has an older partition table (MBR), which ends at 2 TiB. Your box ` +
        "writes a new one.",
      drives: [drive.id],
    });
  }
  if (drive.shingled && underParity) {
    findings.push({
      code: "shingled-in-parity",
      severity: "warn",
      message:
        `${nameOfDriveFirst(drive, family)} uses shingled recording. Under parity its rebuild can take many ` +
        "times longer than shown.",
      drives: [drive.id],
    });
  }
  return findings;
}
