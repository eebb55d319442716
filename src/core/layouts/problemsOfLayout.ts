import type { Finding } from "../findings/finding";
import type { BoxRules } from "../rules/boxRules";
import type { Layout } from "./layout";

/** The fewest drives that a box takes for a layout: its own figure where its rules give one, else the usual one. */
export function fewestDrives(layout: Layout, rules: Pick<BoxRules, "minimumDrives">): number {
  return Math.max(layout.minimumDrives, rules.minimumDrives[layout.id] ?? layout.usualDrives);
}

/** Why a layout cannot be made of this many drives on this box, or null when it can. */
export function tooFewDrives(layout: Layout, count: number, rules: Pick<BoxRules, "minimumDrives">): string | null {
  const fewest = fewestDrives(layout, rules);
  if (count >= fewest) return null;
  const more = fewest - count;
  return `Needs ${fewest} drives: ${more} more.`;
}

/** The findings about a group's layout itself: not offered by the box, or of too few drives. */
export function problemsOfLayout(layout: Layout, drives: readonly string[], rules: BoxRules): Finding[] {
  const findings: Finding[] = [];
  const tooFew = tooFewDrives(layout, drives.length, rules);
  if (tooFew) {
    findings.push({ code: "too-few-drives", severity: "block", message: `${layout.shortName} cannot be made of ${drives.length === 1 ? "1 drive" : `${drives.length} drives`}. ${tooFew} Add drives or choose another layout.`, drives: [...drives] });
  }
  if (!rules.layouts.includes(layout.id)) {
    findings.push({ code: "layout-not-offered", severity: "warn", message: `By its rules your box does not offer ${layout.shortName}. Choose a layout that it offers, or correct what your box can do.`, drives: [...drives] });
  }
  return findings;
}
