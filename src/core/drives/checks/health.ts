import type { UnitFamily } from "../../bytes/formatBytes";
import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";
import { selfTestRate } from "../rates";

/**
 * Whether a drive's health lets it join a group: failing blocks; reallocated or pending sectors, or a bad mark, warn.
 */
export function checkHealth(drive: Drive, family: UnitFamily = "TB"): Finding[] {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  if (state === "failing") {
    return [
      {
        code: "drive-failing",
        severity: "block",
        message: `${nameOfDriveFirst(drive, family)} is failing. Do not let it join; replace it, and copy off what matters while it can be read.`,
        drives: [drive.id],
      },
    ];
  }
  if (reallocatedSectors === 0 && pendingSectors === 0 && state === "good") return [];
  const counts = [
    reallocatedSectors > 0 ? `${reallocatedSectors} reallocated` : "",
    pendingSectors > 0 ? `${pendingSectors} pending` : "",
  ]
    .filter(Boolean)
    .join(" and ");
  const why = counts ? `has ${counts} sectors` : "is marked as one to watch";
  const hours = Math.max(1, Math.round(drive.bytes / selfTestRate(drive) / 3600));
  return [
    {
      code: "drive-suspect",
      severity: "warn",
      message: `${nameOfDriveFirst(drive, family)} ${why}. Run an extended self-test first (about ${hours} h), and do not use it for anything that matters.`,
      drives: [drive.id],
    },
  ];
}
