import type { LaidAct } from "@/core/bestWay/layOut";
import { monthsAfter } from "@/core/bestWay/months";
import type { ToldWay } from "@/core/bestWay/told";
import type { Variation } from "@/core/bestWay/whatIf";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { centsIn } from "@/core/bestWay/instance";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { plainDayWords } from "@/core/time/dateWords";
import { counted } from "@/core/words/counted";
import { withArticle } from "@/core/words/inSentence";
import { listOf } from "@/core/words/listOf";
import { moneyWords } from "@/core/words/money";

/** Cents as an amount in the plan's currency. */
export const centsWords = (cents: number, plan: Plan): string =>
  moneyWords(cents / centsIn(plan.currency), plan.currency);

/** When a month of a way begins. */
export const whenWords = (day: string, month: number): string =>
  month === 0 ? "now" : `by ${plainDayWords(monthsAfter(day, month))}`;

/** The month of a way, as "Jan 2028". */
export const monthOf = (day: string, month: number): string =>
  plainDayWords(monthsAfter(day, month)).replace(/^\d+ /, "");

/** Sizes in few characters: "2 × 12 TB". */
export function sizesWords(sizes: readonly number[], unit: UnitFamily): string {
  return [...new Set(sizes)]
    .map((bytes) => {
      const count = sizes.filter((each) => each === bytes).length;
      return `${count > 1 ? `${count} × ` : ""}${shortSize({ bytes }, unit)}`;
    })
    .join(" and ");
}

/** Drives of some sizes: "two 12 TB drives and an 8 TB drive". */
export function drivesWords(sizes: readonly number[], unit: UnitFamily): string {
  const counts = new Map<number, number>();
  for (const bytes of sizes) counts.set(bytes, (counts.get(bytes) ?? 0) + 1);
  return listOf(
    [...counts].map(([bytes, count]) =>
      count === 1
        ? `${withArticle(shortSize({ bytes }, unit))} drive`
        : `${counted(count, "drive")} of ${shortSize({ bytes }, unit)}`,
    ),
  );
}

/** A drive that goes: by its place now, or by when it was bought. */
function goneWords(id: string, plan: Plan, way: ToldWay, day: string, unit: UnitFamily): string {
  const own = plan.drives.find((drive) => drive.id === id);
  if (own) return nameOfDrive(own, unit);
  const bought = way.acts.find((act) => act.bought.some(({ drive }) => drive === id));
  const bytes = bought?.bought.find(({ drive }) => drive === id)?.bytes ?? 0;
  return `the ${shortSize({ bytes }, unit)} drive bought ${whenWords(day, bought?.month ?? 0)}`;
}

/** What an act does, as the owner would say it. */
export function actWords(act: LaidAct, plan: Plan, way: ToldWay, day: string, unit: UnitFamily): string {
  const sizes = act.bought.map(({ bytes }) => bytes);
  const bought = drivesWords(sizes, unit);
  const gone = listOf(act.gone.map((id) => goneWords(id, plan, way, day, unit)));
  switch (act.kind) {
    case "add":
      return `${bought} more, in a free bay`;
    case "replace":
      return `${bought} in the place of ${gone}`;
    case "further-group":
      return `${bought} as a group of their own`;
    case "new-level":
      return sizes.length > 0 ? `a change of level, with ${bought} more` : "a change of level";
    case "take-out":
      return `${gone} taken out`;
  }
}

/** What is asked otherwise, in the words of an owner. */
export const variationWords: Record<Variation["of"], string> = {
  "slower-fall": "If prices fall half as fast",
  "more-growth": "If half as much again is added each month",
  "one-year-more": "If it has to last a year longer",
  "two-years-more": "If it has to last two years longer",
  "drive-dies": "If the largest drive dies today",
};
