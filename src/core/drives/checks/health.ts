import type { UnitFamily } from "../../bytes/formatBytes";
import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { lengthWords } from "../../time/hoursWords";
import { nameOfDriveFirst } from "../nameOfDrive";
import { selfTestHours } from "../rates";

/** What a drive is to the group in question: it is to be put to use, with or without a test before, or in use. */
export type Use = "joins" | "joins-tested" | "member";

/** What a drive reports that speaks against it: "has 24 reallocated and 1 pending sectors"; null for nothing. */
function troubleOf({ health }: Drive): string | null {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = health;
  const counts = [
    reallocatedSectors > 0 ? `${reallocatedSectors} reallocated` : "",
    pendingSectors > 0 ? `${pendingSectors} pending` : "",
  ]
    .filter(Boolean)
    .join(" and ");
  if (counts) return `has ${counts} sectors`;
  return state === "good" ? null : "is marked as one to watch";
}

/**
 * Whether a drive's health lets it be put to use: failing blocks; reallocated or pending sectors, or a bad mark, warn,
 * and are the owner's decision once a test is planned. Of a member it says what to do while it can still be read.
 */
export function checkHealth(drive: Drive, family: UnitFamily = "TB", use: Use = "joins"): Finding[] {
  const name = nameOfDriveFirst(drive, family);
  const about = (severity: Finding["severity"], code: string, message: string): Finding[] => [
    { code, severity, message, drives: [drive.id] },
  ];
  const sameName = name.charAt(0).toLowerCase() + name.slice(1);
  if (drive.health.state === "failing")
    return use === "member"
      ? about(
          "block",
          "drive-failing",
          `Copy what matters off now, while it can be read: ${sameName} is failing. Then replace it; leave it in until the new one is here. Reckon as if it were gone.`,
        )
      : about("block", "drive-failing", `${name} is failing. Do not put anything on it; choose another drive.`);
  const trouble = troubleOf(drive);
  if (trouble === null) return [];
  if (use === "joins-tested")
    return about("note", "drive-suspect", `${name} is tested before, and still ${trouble}: your decision.`);
  const test = lengthWords(selfTestHours(drive).expected);
  return about(
    "warn",
    "drive-suspect",
    use === "member"
      ? `${name} ${trouble}. Run an extended self-test (${test}), and have a replacement ready.`
      : `${name} ${trouble}. Test it before use (${test}), and keep nothing on it that you cannot lose.`,
  );
}
