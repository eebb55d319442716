"use client";

import { useEffect, useRef } from "react";
import type { LayoutWay, Reached } from "@/core/bestWay/byLayout";
import type { LayoutId, Plan } from "@/core/document/plan";
import { layoutOf } from "@/core/layouts/registry";
import { lengthWords } from "@/core/time/hoursWords";
import type { GrowthAsked, startByLayout } from "@/workers/startGrowth";
import { Button } from "../kit/Button";
import { STACKED_NAME, STACKED_ROW, TableHead } from "../kit/TableHead";
import { useUnit } from "../preferences/preferences";
import { centsWords, drivesWords, monthOf, whenWords } from "./growthWords";
import { Waiting } from "./Waiting";
import { useBeside } from "./useGrowth";

const byLayout = async (...asked: Parameters<typeof startByLayout>) =>
  (await import("@/workers/startGrowth")).startByLayout(...asked);

interface Props {
  asked: GrowthAsked;
  plan: Plan;
  day: string;
  onPick: (layout: LayoutId, reached: Reached) => void;
}

/** How the pool comes to a layout. */
function reachedWords({ reached, changesIn, cents }: LayoutWay, day: string): string {
  if (reached === "stays") return "as it is";
  if (reached === "begins") return "begun in it";
  if (reached === "made-again") return "made again from a backup now";
  if (cents === null) return "changed on the way";
  return changesIn === null ? "a change does not pay" : `changed ${changesIn === 0 ? "now" : monthOf(day, changesIn)}`;
}

/** What each layout costs over the years, the cheapest first. */
export function Layouts({ asked, plan, day, onPick }: Props) {
  const [unit] = useUnit();
  const { result, complete, trouble } = useBeside(asked, byLayout);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // From Compare one comes for this.
    if (location.hash === "#layouts") heading.current?.focus();
  }, []);
  return (
    <section aria-labelledby="layouts" className="min-w-0 xl:col-span-2">
      <h2
        ref={heading}
        id="layouts"
        tabIndex={-1}
        className="border-b border-line pb-1 font-serif text-lg outline-none"
      >
        Layout by layout
      </h2>
      {result && (
        <table className="mt-1 w-full text-left">
          <TableHead names={["Layout", "reached", "in all", "exposed", "and first", ""]} stacks />
          <tbody>
            {result.map((way) => (
              <tr key={`${way.layout} ${way.reached}`} className={STACKED_ROW}>
                <th scope="row" className={STACKED_NAME}>
                  {layoutOf(way.layout).shortName}
                </th>
                <td className="py-1 pr-3">{reachedWords(way, day)}</td>
                <td className="py-1 pr-3 whitespace-nowrap">
                  {way.cents === null ? "no way" : `${way.proved ? "" : "about "}${centsWords(way.cents, plan)}`}
                </td>
                <td className="py-1 pr-3">
                  {way.cents !== null && (way.hours > 0 ? lengthWords(way.hours) : "never")}
                  {way.cents !== null && <span className="sm:hidden"> exposed,</span>}
                </td>
                <td className="py-1 pr-3 text-soft">
                  {way.first
                    ? `${drivesWords(way.first.sizes, unit) || "a change"} ${whenWords(day, way.first.month)}`
                    : way.cents === null
                      ? ""
                      : "nothing to buy"}
                </td>
                <td className="py-1 text-right">
                  {way.cents !== null && way.reached !== "made-again" && (
                    <Button
                      small
                      aria-label={`Ask with it: ${layoutOf(way.layout).shortName}, ${reachedWords(way, day)}`}
                      onClick={() => onPick(way.layout, way.reached)}
                    >
                      Ask with it
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!complete && <Waiting trouble={trouble} />}
      {complete && (
        <p className="mt-1 max-w-[46rem] text-soft">
          Where it says “about”, that nothing costs less is not proved. Made again from a backup, all that is stored has
          to lie elsewhere meanwhile, and is exposed as long as it does; ready-made steps of the plan do that.
        </p>
      )}
    </section>
  );
}
