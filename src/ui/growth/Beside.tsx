"use client";

import { useCallback, useRef, useState } from "react";
import { ofBoxes } from "@/core/chance/chanceWords";
import { centsIn } from "@/core/bestWay/instance";
import type { Told, ToldWay } from "@/core/bestWay/told";
import type { Variation, WhatIf } from "@/core/bestWay/whatIf";
import type { GrowthWish } from "@/core/bestWay/wish";
import type { Plan } from "@/core/document/plan";
import { lengthWords } from "@/core/time/hoursWords";
import { counted } from "@/core/words/counted";
import type { GrowthAsked, HabitCents } from "@/workers/startGrowth";
import { Button } from "../kit/Button";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { TableHead } from "../kit/TableHead";
import { useUnit } from "../preferences/preferences";
import { Refused } from "../rehearse/Refused";
import type { PlaceProps } from "../shell/planPlace";
import { centsWords, drivesWords, monthOf, sizesWords, variationWords, whenWords } from "./growthWords";
import { useBeside } from "./useGrowth";

const habits = async (asked: GrowthAsked) => (await import("@/workers/startGrowth")).startHabits(asked);
const front = async (asked: GrowthAsked) => (await import("@/workers/startGrowth")).startFront(asked);
const whatIf = async (asked: GrowthAsked) => (await import("@/workers/startGrowth")).startWhatIf(asked);

interface Props extends Pick<PlaceProps, "plan" | "act"> {
  asked: GrowthAsked;
  told: Told;
  wish: GrowthWish;
  day: string;
}

/** What stands beside the best way: other points of the front, habits, and what would change the first purchase. */
export function Beside({ asked, told, plan, act, day, wish }: Props) {
  const known = useBeside(asked, habits);
  const ways = useBeside(asked, front);
  const otherwise = useBeside(asked, whatIf);
  const { way } = told;
  if (!way) return null;
  return (
    <div className="mt-6 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <div className="min-w-0 space-y-6">
        <Otherwise found={otherwise} way={way} plan={plan} day={day} wish={wish} />
        <Habits found={known} best={way.cents} plan={plan} day={day} />
      </div>
      <Front found={ways} plan={plan} act={act} />
    </div>
  );
}

interface Found<T> {
  result: T | null;
  trouble: boolean;
}

const Waiting = ({ trouble }: { trouble: boolean }) => (
  <p className="py-1.5 text-soft">
    {trouble ? "This could not be worked out in this browser. Reload the page to try again." : "Being worked out …"}
  </p>
);

const HABIT_WORDS: readonly { habit: keyof HabitCents; words: string }[] = [
  { habit: "sameSize", words: "The size that you have, again and again" },
  { habit: "bestPerTerabyte", words: "Whatever is cheapest per TB" },
  { habit: "largest", words: "Always the largest there is" },
];

interface HabitsProps {
  found: Found<HabitCents>;
  best: number;
  plan: Plan;
  day: string;
}

/** What it costs to buy by habit, each time the box is full. */
function Habits({ found, best, plan, day }: HabitsProps) {
  const [unit] = useUnit();
  return (
    <section aria-labelledby="habits">
      <h2 id="habits" className="border-b border-line pb-1 font-serif text-lg">
        Against habits
      </h2>
      {!found.result && <Waiting trouble={found.trouble} />}
      {found.result && (
        <table className="mt-1 w-full text-left">
          <TableHead names={["Each time the box is full, buy", "in all", "more than this way", "which is"]} />
          <tbody>
            {HABIT_WORDS.map(({ habit, words }) => {
              const { cents = null, bought = [] } = found.result?.[habit] ?? {};
              return (
                <tr key={habit} className="border-t border-line">
                  <th scope="row" className="py-1 pr-3 font-normal">
                    {words}
                  </th>
                  <td className="py-1 pr-3 whitespace-nowrap">
                    {cents === null ? "does not last" : centsWords(cents, plan)}
                  </td>
                  <td className="py-1 pr-3 whitespace-nowrap">
                    {cents === null || best === 0 ? "" : `${Math.max(0, Math.round((cents / best - 1) * 100))} %`}
                  </td>
                  <td className="py-1 text-soft">
                    {bought.map(({ month, sizes }) => `${sizesWords(sizes, unit)} ${monthOf(day, month)}`).join(", ")}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}

interface OtherwiseProps {
  found: Found<WhatIf>;
  way: ToldWay;
  plan: Plan;
  day: string;
  wish: GrowthWish;
}

/** What would change the first purchase, and what would not. */
function Otherwise({ found, way, plan, day, wish }: OtherwiseProps) {
  const [unit] = useUnit();
  const [first] = way.acts;
  const batch = way.acts.filter(({ month }) => month === first?.month).flatMap(({ bought }) => bought);
  const bought = drivesWords(
    batch.map(({ bytes }) => bytes),
    unit,
  );
  const { result } = found;
  const share = (value: number) => `${(value * 100).toFixed(1).replace(/\.0$/, "")} %`;
  const words = ({ cents, first: other }: Variation) =>
    cents === null
      ? "there is no way."
      : `${centsWords(cents, plan)} in all; ` +
        (other
          ? `first ${drivesWords(other.sizes, unit) || "a change"} ${whenWords(day, other.month)}.`
          : "nothing to buy.");
  return (
    <section aria-labelledby="otherwise">
      <h2 id="otherwise" className="border-b border-line pb-1 font-serif text-lg">
        What would change it
      </h2>
      {!result && <Waiting trouble={found.trouble} />}
      {result && first && batch.length > 0 && (
        <p className="py-1.5">
          {result.fall.from === null && result.fall.to === null
            ? `To buy ${bought} first stays right whether prices stay or fall by half a year.`
            : `To buy ${bought} first is right ` +
              [
                result.fall.from === null ? "" : `unless prices fall by less than ${share(result.fall.from)} a year`,
                result.fall.to === null ? "" : `unless they fall by more than ${share(result.fall.to)} a year`,
              ]
                .filter((each) => each !== "")
                .join(", and ") +
              ` (you say ${share(wish.fallPerYear)}).`}
        </p>
      )}
      {result && (
        <dl>
          {result.variations.map((variation) => (
            <div key={variation.of} className="border-t border-line py-1">
              <dt className="inline font-semibold">{variationWords[variation.of]}: </dt>
              <dd className="inline">{words(variation)}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}

interface FrontProps extends Pick<PlaceProps, "plan" | "act"> {
  found: Found<{ ways: ToldWay[]; complete: boolean }>;
}

/** Money against exposed hours: ways of which none is better in both, each to be taken. */
function Front({ found, plan, act }: FrontProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const list = useRef<HTMLUListElement>(null);
  const ways = found.result?.ways;
  const build = useCallback(
    (style: ChartStyle): ChartParts => ({
      traces: [
        {
          type: "scatter",
          mode: "lines+markers",
          x: (ways ?? []).map(({ exposedHours }) => exposedHours),
          y: (ways ?? []).map(({ cents }) => cents / centsIn(plan.currency)),
          customdata: (ways ?? []).map((_, i) => String(i)),
          text: (ways ?? []).map((way) => `${centsWords(way.cents, plan)}, ${lengthWords(way.exposedHours)} exposed`),
          hovertemplate: "%{text}<extra></extra>",
          line: { color: style.colour("--line-strong"), width: 1.5, dash: "dot" },
          marker: { size: 9, color: style.colour("--data") },
        },
      ],
      layout: {
        margin: { l: 56, r: 12, t: 8, b: 42 },
        xaxis: { ...axis(style, "Hours exposed"), rangemode: "tozero" },
        yaxis: axis(style, "Money in all"),
      },
    }),
    [ways, plan],
  );
  return (
    <section aria-labelledby="front">
      <h2 id="front" className="border-b border-line pb-1 font-serif text-lg">
        Money against risk
      </h2>
      <Refused why={refused} />
      {!ways && <Waiting trouble={found.trouble} />}
      {ways && ways.length < 2 && <p className="py-1.5 text-soft">No dearer way leaves your data exposed less long.</p>}
      {ways && ways.length > 1 && (
        <>
          <Chart
            label="Money against hours exposed; each way in the list below"
            height={220}
            build={build}
            onPoint={(i) => list.current?.querySelectorAll("button")[Number(i)]?.focus()}
          />
          <ul ref={list}>
            {ways.map((way) => (
              <li
                key={`${way.cents} ${way.exposedHours}`}
                className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-1.5"
              >
                <span className="min-w-0 flex-1 basis-64">
                  <strong>{centsWords(way.cents, plan)}</strong>:{" "}
                  {way.exposedHours > 0 ? `${lengthWords(way.exposedHours)} exposed` : "never exposed"},{" "}
                  {counted(way.acts.length, "change")}; {ofBoxes(way.chance)} lose something on it
                </span>
                <Button
                  small
                  aria-label={`Make it the plan: ${centsWords(way.cents, plan)}, ${lengthWords(way.exposedHours)} exposed`}
                  onClick={() => setRefused(act(way.command, true))}
                >
                  Make it the plan
                </Button>
              </li>
            ))}
          </ul>
          {!found.result?.complete && <p className="text-soft">There may be others: not all were looked through.</p>}
        </>
      )}
    </section>
  );
}
