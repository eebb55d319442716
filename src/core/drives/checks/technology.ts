import { TiB } from "../../bytes/bytes";
import type { UnitFamily } from "../../bytes/formatBytes";
import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";

/** What a drive's make-up says against it: a partition table that ends at 2 TiB, or shingled recording under parity. */
export function checkTechnology(drive: Drive, underParity: boolean, family: UnitFamily = "TB"): Finding[] {
  const findings: Finding[] = [];
  if (drive.partitionTable === "mbr" && drive.bytes > 2 * TiB) {
    findings.push({
      code: "mbr-too-small",
      severity: "block",
      message: `${nameOfDriveFirst(drive, family)} has an MBR partition table, which ends at 2 TiB. Give it a GPT table first (that erases it).`,
      drives: [drive.id],
    });
  }
  if (drive.shingled && underParity) {
    findings.push({
      code: "shingled-in-parity",
      severity: "warn",
      message: `${nameOfDriveFirst(drive, family)} uses shingled recording. Under parity its rebuild can take many times longer than shown.`,
      drives: [drive.id],
    });
  }
  return findings;
}
