import { inText } from "./inText";
import type { BoxRules, GroupOptions } from "../document/plan";
import type { Finding } from "../findings/finding";
import { counted } from "../words/counted";
import type { Layout } from "./layout";
import { ownValue } from "../records/ownValue";
import { IF_WRONG } from "../rules/ifWrong";

/**
 * The fewest drives that a box takes for a layout with these options: its own figure where its rules give one, else the
 * usual one.
 */
export function fewestDrives(
  layout: Layout,
  rules: Pick<BoxRules, "minimumDrives">,
  options: GroupOptions = {},
): number {
  return Math.max(
    layout.drivesFor?.(options) ?? layout.minimumDrives,
    ownValue(rules.minimumDrives, layout.id) ?? (layout.drivesFor ? 0 : layout.usualDrives),
  );
}

/** Why a layout cannot be made of this many drives on this box, or null when it can. */
export function wrongCount(
  layout: Layout,
  count: number,
  rules: Pick<BoxRules, "minimumDrives" | "mostDrives" | "arrayFormat">,
  options: GroupOptions = {},
): string | null {
  const fewest = fewestDrives(layout, rules, options);
  if (count < fewest) return `Needs ${fewest} drives: ${fewest - count} more.`;
  if (rules.mostDrives !== null && count > rules.mostDrives)
    return `Your box takes ${counted(rules.mostDrives, "drive")} at most: ${count - rules.mostDrives} too many.`;
  const { multiple = 1 } = layout;
  // The kernel's driver takes any number.
  if (count % multiple !== 0 && rules.arrayFormat !== "linux-raid")
    return multiple === 2
      ? "Needs an even number of drives: 1 more."
      : `Needs drives in multiples of ${multiple}: ${multiple - (count % multiple)} more.`;
  return null;
}

/** The findings about a group's layout itself: not offered by the box, or of a number of drives that it cannot have. */
export function problemsOfLayout(
  layout: Layout,
  drives: readonly string[],
  rules: BoxRules,
  options: GroupOptions = {},
): Finding[] {
  const findings: Finding[] = [];
  const wrong = wrongCount(layout, drives.length, rules, options);
  if (wrong) {
    findings.push({
      code: "wrong-drive-count",
      severity: "block",
      message:
        `${layout.shortName} cannot be made of ${counted(drives.length, "drive")}. ${wrong} ` +
        (drives.length > (rules.mostDrives ?? Infinity)
          ? "Take some out, or choose another kind of box."
          : "Add drives or choose another layout."),
      drives: [...drives],
    });
  }
  if (!rules.layouts.includes(layout.id)) {
    findings.push({
      code: "layout-not-offered",
      severity: "warn",
      message: `Your box does not offer ${inText(layout)}. Choose a layout that it offers. ${IF_WRONG}`,
      drives: [...drives],
    });
  }
  return findings;
}
