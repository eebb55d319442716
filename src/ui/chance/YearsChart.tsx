"use client";

import { useCallback } from "react";
import type { PoolAtRest } from "@/core/chance/atRest";
import { ofBoxes } from "@/core/chance/chanceWords";
import type { Ranged } from "@/core/chance/figures";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";

/** The chance over ten years, as the drives grow old, with its range. */
export function YearsChart({ pool, ranged }: { pool: PoolAtRest; ranged: Ranged<PoolAtRest> | null }) {
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const years = pool.byYear.map((_, i) => i + 1);
      const edge = (of: "low" | "high") => ranged?.byYear.map((range) => range[of] * 1000) ?? [];
      const band = ranged
        ? [
            { type: "scatter", x: years, y: edge("low"), mode: "lines", line: { width: 0 }, hoverinfo: "skip" },
            {
              type: "scatter",
              x: years,
              y: edge("high"),
              mode: "lines",
              line: { width: 0 },
              fill: "tonexty",
              // Its own hue at a quarter of its strength.
              fillcolor: `${colour("--parity")}40`,
              hoverinfo: "skip",
            },
          ]
        : [];
      return {
        traces: [
          ...band,
          {
            type: "scatter",
            x: years,
            y: pool.byYear.map((chance) => chance * 1000),
            text: pool.byYear.map((chance, i) => `by the end of year ${i + 1}: ${ofBoxes(chance)}`),
            hovertemplate: "%{text}<extra></extra>",
            mode: "lines+markers",
            line: { color: colour("--data"), width: 2.5 },
            marker: { size: 6, color: colour("--data") },
          },
        ],
        layout: {
          margin: { l: 56, r: 10, t: 8, b: 42 },
          xaxis: { ...axis(style, "Years"), dtick: 1 },
          yaxis: { ...axis(style, "Of 1,000 boxes"), type: "log", dtick: "D2" },
        },
      };
    },
    [pool, ranged],
  );
  const figures = {
    head: ["By the end of year", "lose something", "at least", "at most"],
    rows: pool.byYear.map((chance, i) => {
      const range = ranged?.byYear[i];
      return [`${i + 1}`, ofBoxes(chance), range ? ofBoxes(range.low) : "", range ? ofBoxes(range.high) : ""];
    }),
  };
  const last = pool.byYear.at(-1) ?? 0;
  return (
    <section aria-labelledby="over-the-years">
      <h2 id="over-the-years" className="border-b border-line pb-1 font-serif text-lg">
        Over the years
      </h2>
      <p className="py-1.5">
        Drives grow old: {ofBoxes(pool.byYear[0] ?? 0)} lose something by their drives in the first year,{" "}
        {ofBoxes(last)} within ten.
      </p>
      <Chart label="Boxes that lose something, year by year" figures={figures} height={220} build={build} />
    </section>
  );
}
