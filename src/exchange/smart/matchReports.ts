import type { Command } from "@/core/document/command";
import type { Drive } from "@/core/document/plan";
import { driveOfReport, type SmartReport } from "./readSmart";

/** Reports beside the drives of a plan that they are of. */
export interface MatchedReports {
  matched: { report: SmartReport; drive: Drive }[];
  /** Of drives that the plan does not know. */
  unknown: SmartReport[];
}

/** Matches reports to drives by serial, whatever its case. */
export function matchReports(drives: readonly Drive[], reports: readonly SmartReport[]): MatchedReports {
  const bySerial = new Map(
    drives.flatMap((drive) => (drive.serial ? [[drive.serial.trim().toLowerCase(), drive] as const] : [])),
  );
  const matched: MatchedReports["matched"] = [];
  const unknown: SmartReport[] = [];
  for (const report of reports) {
    const drive = bySerial.get(report.serial.toLowerCase());
    if (drive) matched.push({ report, drive });
    else unknown.push(report);
  }
  return { matched, unknown };
}

/** The command that takes reports over: health and sectors of the drives known, and the unknown ones onto the shelf. */
export function takeReports({ matched, unknown }: MatchedReports, addUnknown: boolean): Command {
  return {
    kind: "update-drives",
    edits: matched.map(({ report, drive }) => ({
      drive: drive.id,
      changes: {
        health: report.health,
        ...(report.logicalSector ? { logicalSector: report.logicalSector } : {}),
        ...(report.physicalSector ? { physicalSector: report.physicalSector } : {}),
      },
    })),
    added: addUnknown ? unknown.flatMap((report) => driveOfReport(report) ?? []) : [],
  };
}
