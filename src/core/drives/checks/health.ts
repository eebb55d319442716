import { counted } from "../../words/counted";
import type { UnitFamily } from "../../bytes/formatBytes";
import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { lengthWords } from "../../time/hoursWords";
import { worseBy } from "../wear";
import { isGone } from "../driveState";
import { nameOfDriveFirst } from "../nameOfDrive";
import { selfTestHours } from "../rates";

/** What a drive is to the group in question: it is to be put to use, with or without a test before, or in use. */
export type Use = "joins" | "joins-tested" | "member";

/** What a drive reports against itself: "has 24 worn-out sectors and 1 that cannot be read"; null for nothing. */
function troubleOf({ health }: Drive): string | null {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = health;
  const counts = [
    reallocatedSectors > 0 ? counted(reallocatedSectors, "worn-out sector") : "",
    pendingSectors > 0
      ? `${reallocatedSectors > 0 ? pendingSectors : counted(pendingSectors, "sector")} that cannot be read`
      : "",
  ]
    .filter(Boolean)
    .join(" and ");
  if (counts) return `has ${counts}`;
  return state === "good" ? null : "is marked as worn";
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
  // Of one in use it is said with its pool, whose state it decides.
  if (isGone(drive))
    return use === "member"
      ? []
      : about(
          "block",
          "drive-gone",
          drive.state === "failed"
            ? `${name} cannot be put to use, and is not to be put back in. Choose another drive.`
            : `${name} is not in the box. Choose another drive, or say that it is back.`,
        );
  if (drive.health.state === "failing")
    return use === "member"
      ? about(
          "block",
          "drive-failing",
          `Copy what matters off now, while it can be read. Then replace ${sameName}, which is failing; leave ` +
            "it in until the new one is here.",
        )
      : about("block", "drive-failing", `${name} is failing. Put nothing on it; choose another drive.`);
  const trouble = troubleOf(drive);
  if (trouble === null) return [];
  if (use === "joins-tested")
    return about("note", "drive-suspect", `${name} is tested before, and still ${trouble}: your decision.`);
  const test = lengthWords(selfTestHours(drive).expected);
  const worse = worseBy(drive.health);
  if (worse > 0)
    return about(
      "block",
      "drive-gets-worse",
      use === "member"
        ? `${name} ${trouble}, ${worse} more than at the reading before: it gets worse. Replace it while it can ` +
            "be read; leave it in until the new one is filled."
        : `${name} ${trouble}, ${worse} more than at the reading before: it gets worse. Choose another drive.`,
    );
  return about(
    "warn",
    "drive-suspect",
    use === "member"
      ? `${name} ${trouble}. Run an extended self-test (${test}), and have a replacement ready.`
      : `${name} ${trouble}. Test it before use (${test}), and keep nothing on it that you cannot lose.`,
  );
}
