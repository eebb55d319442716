import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";

const ERASED = "Everything on it is erased. It cannot be undone: only a backup brings it back.";

/**
 * Whether a drive holds something that is erased when it is put to use, whatever as: the running system blocks, other
 * data warns. On a box that keeps its system on all drives a drive that carries it may join like any other: the
 * system's part is what the box keeps of every drive.
 */
export function checkContents(drive: Drive, rules: Pick<BoxRules, "system">, family: UnitFamily = "TB"): Finding[] {
  if (!drive.contents) return [];
  const { kind } = drive.contents;
  const name = nameOfDriveFirst(drive, family);
  const detail = drive.contents.detail ? ` (${drive.contents.detail})` : "";
  if (kind === "system" && rules.system === "own-drive")
    return [
      {
        code: "system-drive",
        severity: "block",
        message:
          `${name} carries the running system${detail}. It cannot be used for anything else; choose another ` +
          "drive.",
        drives: [drive.id],
      },
    ];
  const says = {
    system:
      `${name} carries a running system${detail}. Your box keeps its own part of every drive; whatever else is ` +
      "on it is erased, and only a backup brings it back.",
    mounted: `${name} is in use${detail}. ${ERASED} Copy it away first.`,
    data: `${name} holds data${detail}. ${ERASED} Copy away what you want to keep.`,
  };
  return [{ code: "will-be-erased", severity: "warn", message: says[kind], drives: [drive.id] }];
}
