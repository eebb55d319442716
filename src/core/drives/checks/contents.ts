import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";

/**
 * Whether a drive holds something that joining a group would erase: the running system blocks, other data warns. On a
 * box that keeps its system on all drives a drive that carries it may join like any other: the system's part is what
 * the
 * box keeps of every drive.
 */
export function checkContents(drive: Drive, rules: Pick<BoxRules, "system">, family: UnitFamily = "TB"): Finding[] {
  if (!drive.contents) return [];
  const name = nameOfDriveFirst(drive, family);
  const detail = drive.contents.detail ? ` (${drive.contents.detail})` : "";
  switch (drive.contents.kind) {
    case "system":
      if (rules.system === "on-all-drives")
        return [
          {
            code: "will-be-erased",
            severity: "warn",
            message: `${name} carries a running system${detail}. Your box keeps its own part of every drive; whatever else is on it will be erased when the group is made.`,
            drives: [drive.id],
          },
        ];
      return [
        {
          code: "system-drive",
          severity: "block",
          message: `${name} carries the running system${detail}. It cannot join a group; choose another drive.`,
          drives: [drive.id],
        },
      ];
    case "mounted":
      return [
        {
          code: "will-be-erased",
          severity: "warn",
          message: `${name} is in use${detail}. Everything on it will be erased when the group is made. Copy it away first.`,
          drives: [drive.id],
        },
      ];
    case "data":
      return [
        {
          code: "will-be-erased",
          severity: "warn",
          message: `${name} holds data${detail}. It will be erased when the group is made. Copy away what you want to keep.`,
          drives: [drive.id],
        },
      ];
  }
}
