import type { BoxRules, Drive, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";

/**
 * The drives on which a box keeps its system: those in bays, where it is on all drives; otherwise those that carry it
 * by themselves, as far as the plan knows them.
 */
export function systemDrives(plan: Pick<Plan, "drives">, rules: Pick<BoxRules, "system">): Drive[] {
  return rules.system === "on-all-drives"
    ? plan.drives.filter((drive) => bayOf(drive) !== null)
    : plan.drives.filter((drive) => drive.contents?.kind === "system");
}

/**
 * What becomes of a box's system when some drives have failed: *runs*; *one-copy*, where the last drive of several that
 * carries it is left; *gone*: the box does not start, though the pools are as whole as their own bands say; *unknown*
 * where no drive of the plan carries it.
 *
 * @example systemFate(planWithSystemDrive, new Set(["d1"]), { system: "own-drive" }) // "gone"
 */
export function systemFate(
  plan: Pick<Plan, "drives">,
  failed: ReadonlySet<string>,
  rules: Pick<BoxRules, "system">,
): "runs" | "one-copy" | "gone" | "unknown" {
  const drives = systemDrives(plan, rules);
  const left = drives.filter((drive) => !failed.has(drive.id)).length;
  if (drives.length === 0) return "unknown";
  if (left === 0) return "gone";
  return left === 1 && drives.length > 1 ? "one-copy" : "runs";
}
