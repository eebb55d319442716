"use client";

import { useCallback } from "react";
import { monthsAfter } from "@/core/bestWay/months";
import type { ToldWay } from "@/core/bestWay/told";
import type { GrowthWish } from "@/core/bestWay/wish";
import { formatBytes } from "@/core/bytes/formatBytes";
import { plainDayWords } from "@/core/time/dateWords";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { useUnit } from "../preferences/preferences";
import { sizesWords } from "./growthWords";

/** What is bought in each month in which something is, and what the box holds when it is in. */
function boughtIn({ acts, files }: ToldWay): { month: number; files: number; sizes: number[] }[] {
  const last = (month: number) => acts.findLastIndex((act) => act.month === month);
  return [...new Set(acts.map(({ month }) => month))].map((month) => ({
    month,
    files: files[last(month)] ?? 0,
    sizes: acts.filter((act) => act.month === month).flatMap((act) => act.bought.map(({ bytes }) => bytes)),
  }));
}

/** What the box holds along a way, above what is stored. */
export function GrowthChart({ way, wish, day }: { way: ToldWay; wish: GrowthWish; day: string }) {
  const [unit] = useUnit();
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const divisor = unit === "TB" ? 1e12 : 2 ** 40;
      const { colour } = style;
      const end = monthsAfter(day, wish.months);
      const days = [day, ...way.acts.map(({ month }) => monthsAfter(day, month)), end];
      const held = [way.filesNow, ...way.files, way.files.at(-1) ?? way.filesNow].map((bytes) => bytes / divisor);
      // What is told of a month is what is stored when it ends.
      const months = wish.demand.map((_, month) => monthsAfter(day, month + 1));
      const bought = boughtIn(way);
      const top = Math.max(...held, ...wish.demand.map((bytes) => bytes / divisor));
      return {
        traces: [
          {
            type: "scatter",
            mode: "lines",
            name: "holds",
            x: days,
            y: held,
            line: { color: colour("--data"), width: 2.5, shape: "hv" },
            hovertemplate: `holds %{y:.1f} ${unit}<br>%{x}<extra></extra>`,
          },
          {
            type: "scatter",
            mode: "markers+text",
            name: "bought",
            x: bought.map(({ month }) => monthsAfter(day, month)),
            y: bought.map(({ files }) => files / divisor),
            text: bought.map(({ sizes }) => sizesWords(sizes, unit)),
            textposition: "top left",
            marker: { size: 8, color: colour("--data") },
            hovertemplate: "%{text}<br>%{x}<extra></extra>",
          },
          {
            type: "scatter",
            mode: "lines",
            name: "stored",
            x: months,
            y: wish.demand.map((bytes) => bytes / divisor),
            line: { color: colour("--ink"), width: 2, dash: "dash" },
            hovertemplate: `stored %{y:.1f} ${unit}<br>%{x}<extra></extra>`,
          },
        ],
        layout: {
          margin: { l: 46, r: 12, t: 8, b: 36 },
          showlegend: true,
          legend: { orientation: "h", x: 0, y: -0.18 },
          xaxis: { ...axis(style, ""), type: "date" },
          yaxis: { ...axis(style, `Files, ${unit}`), range: [0, 1.15 * top] },
        },
      };
    },
    [way, wish, day, unit],
  );
  const figures = {
    head: ["On", "bought", "holds then", "stored at the end of that month"],
    rows: [
      { month: 0, bought: "", files: way.filesNow },
      ...boughtIn(way).map((each) => ({ ...each, bought: sizesWords(each.sizes, unit) })),
    ].map(({ month, bought, files }) => [
      plainDayWords(monthsAfter(day, month)),
      bought,
      formatBytes(files, unit),
      formatBytes(wish.demand[month] ?? 0, unit),
    ]),
  };
  return (
    <section aria-labelledby="holds-and-stored">
      <h2 id="holds-and-stored" className="border-b border-line pb-1 font-serif text-lg">
        What it holds, and what is stored
      </h2>
      <Chart label="What the box holds above what is stored" figures={figures} height={260} build={build} />
    </section>
  );
}
