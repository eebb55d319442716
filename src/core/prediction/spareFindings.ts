import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Plan, Pool, Step } from "../document/plan";
import { fillsByItself } from "../box/condition";
import { goneIn } from "../box/gone";
import { OF_ANOTHER_GROUP, serviceOf, spareFor, TOO_SMALL } from "../box/standIn";
import { isGone } from "../drives/driveState";
import { nameOfDrive, nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { listOf } from "../words/listOf";

/** Reasons in one sentence: each with the drives that it is about. */
function reasons(not: readonly { drive: string; why: string }[], nameOf: (id: string) => string): string {
  const byWhy = new Map<string, string[]>();
  for (const { drive, why } of not) byWhy.set(why, [...(byWhy.get(why) ?? []), nameOf(drive)]);
  const entries = [...byWhy];
  const [only] = entries;
  if (only && entries.length === 1) return only[0];
  return entries.map(([why, names]) => `for ${listOf(names)}, ${why}`).join("; ");
}

/**
 * That a spare fits for a drive that is gone, and the plan does not say that it takes over, as boxes do by themselves.
 *
 * @param next the step that begins at this moment
 * @example idleSpares(planWithoutTheStep, pool, rules, "TB", undefined)[0].mend.label // "It takes over"
 */
export function idleSpares(
  plan: Plan,
  pool: Pool,
  rules: BoxRules,
  family: UnitFamily,
  next: Step | undefined,
): Finding[] {
  if (fillsByItself(next, pool)) return [];
  const answered = new Set(plan.steps.flatMap((step) => ("by" in step ? [step.drive, step.by] : [])));
  const [first] = plan.steps;
  return pool.groups.flatMap((group) =>
    group.drives
      .filter((id) => goneIn(plan).has(id) && !answered.has(id))
      .flatMap((drive): Finding[] => {
        const spare = spareFor(plan, pool, group, drive, rules, [...answered]);
        if (!spare) return [];
        const steps = [{ kind: "rebuild" as const, group: group.id, drive, by: spare.id }];
        return [
          {
            code: "spare-idle",
            severity: "warn",
            message: `${nameOfDriveFirst(spare, family)} fits as a spare, and the plan does not let it take over.`,
            drives: [spare.id],
            mend: {
              label: "It takes over",
              command: { kind: "insert-steps", ...(first ? { before: first.id } : {}), steps },
            },
          },
        ];
      }),
  );
}

/**
 * Which failures a hot spare could serve and which not, and why: before it matters.
 *
 * @example spareFindings(plan, pool, spare, rules, "TB")[0].code // "spare-too-small"
 */
export function spareFindings(plan: Plan, pool: Pool, spare: Drive, rules: BoxRules, family: UnitFamily): Finding[] {
  const mend = { label: "Remove it from the spares", command: { kind: "leave-group" as const, drives: [spare.id] } };
  const name = nameOfDriveFirst(spare, family);
  const inSentence = nameOfDrive(spare, family);
  if (rules.hotSpares === "none")
    return [
      {
        code: "spares-not-offered",
        severity: "warn",
        message: `Your box has no hot spares, so ${inSentence} would not take over by itself.`,
        drives: [spare.id],
        mend,
      },
    ];
  if (isGone(spare))
    return [
      {
        code: "spare-gone",
        severity: "warn",
        message: `${name} was a hot spare, and cannot take over for any other drive. Replace it.`,
        drives: [spare.id],
        mend,
      },
    ];
  const { serves, not: all } = serviceOf(plan, pool, spare.id, rules, family);
  // That a spare stands by for one group only is said of the pool.
  const not = all.filter(({ why }) => why !== OF_ANOTHER_GROUP);
  const nameOf = (id: string) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive ? nameOfDrive(drive, family) : id;
  };
  if (not.length === 0) return [];
  if (serves.length === 0)
    return [
      {
        code: not.every(({ why }) => why.startsWith(TOO_SMALL)) ? "spare-too-small" : "spare-of-no-use",
        severity: "block",
        message:
          `${name} could take over for no drive of ${pool.name || "the pool"}: ${reasons(not, nameOf)}. Choose ` +
          "another spare.",
        drives: [spare.id],
        mend,
      },
    ];
  return [
    {
      code: "spare-for-some",
      severity: "note",
      message:
        `${name} would take over for ${listOf(serves.map(nameOf))}. Not for ` +
        `${listOf(not.map(({ drive }) => nameOf(drive)))}: ${reasons(not, nameOf)}.`,
      drives: [spare.id],
    },
  ];
}
