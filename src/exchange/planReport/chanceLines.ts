import { causeWords, chanceWords } from "@/core/chance/chanceWords";
import type { Ranged } from "@/core/chance/figures";
import { mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import type { PlanChances } from "@/core/chance/planChances";
import type { Plan } from "@/core/document/plan";

/**
 * The chances of a plan for a document, each with its range.
 *
 * @param chances at the first moment and, where there are steps, the last
 * @example chanceLines(chances, plan)[0]
 * // "Images, now: 2 of 1,000 (between 1 and 32) lose something by their drives in a year; all of it …"
 */
export function chanceLines({ moments, along }: Ranged<PlanChances>, plan: Plan): string[] {
  const nameOf = (id: string) => plan.pools.find((pool) => pool.id === id)?.name || id;
  const atRest = moments.flatMap(({ pools }, i) =>
    pools.map(({ id, year, tenYears }) => {
      const worst = mostly(year.causes, OF_DRIVES);
      return (
        `${nameOf(id)}, ${i === 0 ? "now" : "after the plan"}: ${chanceWords(year.any)} lose something by their drives ` +
        `in a year; the pool ${chanceWords(year.poolLost)}, a file ${chanceWords(year.fileDamaged)}; in ten years ` +
        `${chanceWords(tenYears.any)}.${worst ? ` Mostly: ${causeWords(worst)}.` : ""}`
      );
    }),
  );
  const others = moments[0]?.pools[0]?.year.causes;
  return [
    ...atRest,
    ...(plan.steps.length > 0
      ? [
          `On the way through the plan: ${chanceWords(along.any)} lose something, ${chanceWords(along.poolLost)} a whole ` +
            `pool; what no backup brings back, ${chanceWords(along.withBackups)}.`,
        ]
      : []),
    ...(others
      ? [
          `By theft or fire ${chanceWords(others.theft)}, by a deletion ${chanceWords(others.deletion)} in a year: ` +
            "both are assumed.",
        ]
      : []),
    "This is about boxes like yours, not about yours.",
  ];
}
