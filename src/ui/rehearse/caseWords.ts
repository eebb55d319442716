import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import type { At, Instant } from "@/core/rehearsal/trials";
import { columnWords, driveWords, lowerFirst } from "./mishapWords";

/** The number of a step as the plan counts them; 0 before the first. */
export const stepNumber = (plan: Plan, step: string | null | undefined): number =>
  plan.steps.filter(({ disabled }) => !disabled).findIndex(({ id }) => id === step) + 1;

/** A mishap of a case, and when it strikes. */
function atWords({ instant, happening }: At, instants: readonly Instant[], plan: Plan, unit: UnitFamily): string {
  const at = instants[instant];
  const what = at?.happenings[happening];
  if (!at || !what) return "";
  const drive = plan.drives.some(({ id }) => id === what.of) ? `: ${driveWords(plan, what.of ?? "", unit)}` : "";
  const when =
    at.step === undefined
      ? "before the first step"
      : at.share === 0
        ? `when step ${stepNumber(plan, at.step)} begins`
        : `at ${Math.round(at.share * 100)} % of step ${stepNumber(plan, at.step)}`;
  return `${columnWords(what.kind)}${drive}, ${when}`;
}

const lowerAtWords: typeof atWords = (...given) => lowerFirst(atWords(...given));

/**
 * A case of the table in words, short enough for a name.
 *
 * @example caseWords(ats, instants, plan, "TB") // "A drive dies: 4 TB, bay 2 (TJ4-0422), at 50 % of step 3"
 */
export const caseWords = (ats: readonly At[], instants: readonly Instant[], plan: Plan, unit: UnitFamily): string =>
  ats
    .map((at, i) => (i === 0 ? atWords : lowerAtWords)(at, instants, plan, unit))
    .join("; then ")
    .slice(0, 120);
