"use client";

import { useCallback, useRef, useState } from "react";
import { centsIn } from "@/core/bestWay/instance";
import type { ToldWay } from "@/core/bestWay/told";
import { ofBoxes } from "@/core/chance/chanceWords";
import { lengthWords } from "@/core/time/hoursWords";
import { counted } from "@/core/words/counted";
import type { GrowthAsked } from "@/workers/startGrowth";
import { Button } from "../kit/Button";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { Refused } from "../rehearse/Refused";
import type { PlaceProps } from "../shell/planPlace";
import { centsWords, exposedWords } from "./growthWords";
import { type Look, Waiting } from "./Waiting";
import { useBeside } from "./useGrowth";

const front = async (asked: GrowthAsked) => (await import("@/workers/startGrowth")).startFront(asked);

interface Props extends Pick<PlaceProps, "plan" | "act"> {
  asked: GrowthAsked;
  look: Look;
}

/** Money against exposed hours: ways of which none is better in both, each to be taken. */
export function Front({ asked, plan, act, look }: Props) {
  const found = useBeside(asked, front);
  const [refused, setRefused] = useState<string | null>(null);
  const list = useRef<HTMLUListElement>(null);
  const ways = found.result?.ways;
  const nameOf = (way: ToldWay) => `${centsWords(way.cents, plan)}, ${exposedWords(way.exposedHours)}`;
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
            label="Money against hours exposed"
            figures="below"
            height={220}
            build={build}
            onPoint={(i) => list.current?.querySelectorAll<HTMLButtonElement>("button[data-look]")[Number(i)]?.click()}
          />
          <ul ref={list}>
            {ways.map((way) => (
              <li
                key={`${way.cents} ${way.exposedHours}`}
                className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-1.5"
              >
                <span className="min-w-0 flex-1 basis-64">
                  <strong>{centsWords(way.cents, plan)}</strong>: {exposedWords(way.exposedHours)},{" "}
                  {counted(way.acts.length, "change")}; {ofBoxes(way.chance)} lose something on it
                </span>
                <Button
                  small
                  data-look
                  aria-label={`Look at it: ${nameOf(way)}`}
                  onClick={() => look({ name: `for ${nameOf(way)}`, way })}
                >
                  Look at it
                </Button>
                <Button
                  small
                  aria-label={`Make it the plan: ${nameOf(way)}`}
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
