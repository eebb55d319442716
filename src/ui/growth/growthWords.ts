import type { LaidAct } from "@/core/bestWay/layOut";
import { monthsAfter } from "@/core/bestWay/months";
import type { ToldWay } from "@/core/bestWay/told";
import { type Assumption, LESS_FREE, RETIRED_AFTER } from "@/core/bestWay/whatIf";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { centsIn } from "@/core/bestWay/instance";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { plainDayWords } from "@/core/time/dateWords";
import { lengthWords } from "@/core/time/hoursWords";
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

/** What can be otherwise, after "if". */
export const assumptionWords: Record<Assumption, string> = {
  "more-growth": "half as much again is added each month",
  "less-growth": "half as much is added each month",
  "one-year-more": "it has to last a year longer",
  "two-years-more": "it has to last two years longer",
  "slower-fall": "prices fall half as fast",
  "less-free": `${LESS_FREE * 100} % less is kept free`,
  "one-more-lost": "one more drive may be lost",
  "one-bay-fewer": "it has one bay fewer",
  "one-bay-more": "it has one bay more",
  retired: `drives are retired after ${RETIRED_AFTER} years`,
  "never-retired": "drives are not retired",
  "no-limit": "there is no limit of money a year",
  "drive-dies": "the largest drive dies today",
};

/** How much more or less: "€20.00 more". */
export const moreWords = (cents: number, plan: Plan): string =>
  cents === 0 ? "the same" : `${centsWords(Math.abs(cents), plan)} ${cents > 0 ? "more" : "less"}`;

/** For how long a way exposes data. */
export const exposedWords = (hours: number): string => (hours > 0 ? `${lengthWords(hours)} exposed` : "never exposed");

/** What a way buys, month by month: "12 TB Jan 2028, 16 TB Aug 2031". */
export function purchasesWords({ acts }: ToldWay, day: string, unit: UnitFamily): string {
  const months = [...new Set(acts.filter(({ bought }) => bought.length > 0).map(({ month }) => month))];
  if (months.length === 0) return "nothing to buy";
  return months
    .map((month) => {
      const sizes = acts.filter((act) => act.month === month).flatMap(({ bought }) => bought.map(({ bytes }) => bytes));
      return `${sizesWords(sizes, unit)} ${month === 0 ? "now" : monthOf(day, month)}`;
    })
    .join(", ");
}
