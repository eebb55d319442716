"use client";

import type { Habit } from "@/core/bestWay/habits";
import type { ToldWay } from "@/core/bestWay/told";
import type { Plan } from "@/core/document/plan";
import type { GrowthAsked } from "@/workers/startGrowth";
import { Button } from "../kit/Button";
import { STACKED_NAME, STACKED_ROW, TableHead } from "../kit/TableHead";
import { useUnit } from "../preferences/preferences";
import { centsWords, exposedWords, monthOf, purchasesWords } from "./growthWords";
import { type Look, Waiting } from "./Waiting";
import { useBeside } from "./useGrowth";

const habits = async (asked: GrowthAsked) => (await import("@/workers/startGrowth")).startHabits(asked);

const HABIT_WORDS: readonly { habit: Habit; words: string; name: string }[] = [
  { habit: "sameSize", words: "The size that you have, again and again", name: "with the size that you have" },
  { habit: "bestPerTerabyte", words: "Whatever is cheapest per TB", name: "with whatever is cheapest per TB" },
  { habit: "largest", words: "Always the largest there is", name: "with the largest there is" },
];

interface Props {
  asked: GrowthAsked;
  best: number;
  plan: Plan;
  day: string;
  look: Look;
}

/** What it costs to buy by habit, each time the box is full; each of them can be looked at. */
export function Habits({ asked, best, plan, day, look }: Props) {
  const [unit] = useUnit();
  const { result, trouble } = useBeside(asked, habits);
  const more = ({ cents }: ToldWay): string =>
    best === 0 ? "" : `${Math.max(0, Math.round((cents / best - 1) * 100))} %`;
  return (
    <section aria-labelledby="habits">
      <h2 id="habits" className="border-b border-line pb-1 font-serif text-lg">
        Against habits
      </h2>
      {!result && <Waiting trouble={trouble} />}
      {result && (
        <table className="mt-1 w-full text-left">
          <TableHead
            names={["Each time the box is full, buy", "in all", "more than this way", "which is", ""]}
            stacks
          />
          <tbody>
            {HABIT_WORDS.map(({ habit, words, name }) => {
              const way = result.ways[habit];
              return (
                <tr key={habit} className={STACKED_ROW}>
                  <th scope="row" className={STACKED_NAME}>
                    {words}
                  </th>
                  <td className="py-1 pr-3 whitespace-nowrap">{way ? centsWords(way.cents, plan) : "does not last"}</td>
                  <td className="py-1 pr-3 whitespace-nowrap">
                    {way && more(way)}
                    {way && <span className="sm:hidden"> more</span>}
                  </td>
                  <td className="py-1 pr-3 text-soft">
                    {way && `${purchasesWords(way, day, unit)}; ${exposedWords(way.exposedHours)}`}
                  </td>
                  <td className="py-1 text-right">
                    {way && way.acts.length > 0 && (
                      <Button small aria-label={`Look at it ${name}`} onClick={() => look({ name, way })}>
                        Look at it
                      </Button>
                    )}
                  </td>
                </tr>
              );
            })}
            <tr className={STACKED_ROW}>
              <th scope="row" className={STACKED_NAME}>
                Nothing at all
              </th>
              <td colSpan={4} className="py-1">
                {result.fullIn >= asked.wish.months
                  ? "lasts all the same"
                  : result.fullIn === 0
                    ? "is too small already"
                    : `is too small from ${monthOf(day, result.fullIn)} on`}
              </td>
            </tr>
          </tbody>
        </table>
      )}
    </section>
  );
}
