"use client";

import { useCallback, useMemo } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { plainDayWords } from "@/core/time/dateWords";
import { dayAfter } from "@/core/time/days";
import type { Walk } from "@/core/walk/moment";
import type { Dates } from "../calendar/useDates";
import { axis, Chart, type ChartStyle } from "../kit/Chart";
import { useUnit } from "../preferences/preferences";
import { demandLines, demandRows } from "./demandLines";

const POINTS = 60;

/** What is stored against what there is, over the years: by the plan and without it. */
export function DemandChart({ walked, dates }: { walked: Walk; dates: Dates }) {
  const [unit] = useUnit();
  const { start } = dates;
  const lines = useMemo(() => demandLines(walked, dates), [walked, dates]);
  const hasSteps = walked.plan.steps.length > 0;
  const build = useCallback(
    (style: ChartStyle) => {
      const { days, storedAt, space } = lines;
      const divisor = unit === "TB" ? 1e12 : 2 ** 40;
      const grid = Array.from({ length: POINTS + 1 }, (_, i) => (i * days) / POINTS);
      const [first, last] = [space[0]?.bytes ?? 0, space.at(-1)?.bytes ?? 0];
      const line = (name: string, points: { day: number; bytes: number }[], look: object) => ({
        type: "scatter",
        mode: "lines",
        name,
        x: points.map(({ day }) => dayAfter(start, day)),
        y: points.map(({ bytes }) => bytes / divisor),
        hovertemplate: `${name}: %{y:.1f} ${unit}<br>%{x}<extra></extra>`,
        ...look,
      });
      const without = [0, days].map((day) => ({ day, bytes: first }));
      return {
        traces: [
          ...(hasSteps
            ? [
                line("space without the plan", without, {
                  line: { color: style.colour("--line-strong"), width: 2, dash: "dot" },
                }),
              ]
            : []),
          line("space", [...space, { day: days, bytes: last }], {
            line: { color: style.colour("--data"), width: 2.5, shape: "hv" },
          }),
          line(
            "stored",
            grid.map((day) => ({ day, bytes: storedAt(day) })),
            { line: { color: style.colour("--ink"), width: 2, dash: "dash" } },
          ),
        ],
        layout: {
          margin: { l: 46, r: 12, t: 8, b: 36 },
          showlegend: true,
          legend: { orientation: "h", x: 0, y: -0.18 },
          xaxis: { ...axis(style, ""), type: "date" },
          yaxis: { ...axis(style, unit), rangemode: "tozero" },
        },
      };
    },
    [lines, hasSteps, start, unit],
  );
  const figures = useMemo(
    () => ({
      head: ["On", "stored", "space for it", "left"],
      rows: demandRows(lines).map(({ day, stored, space }) => [
        plainDayWords(dayAfter(start, day)),
        formatBytes(stored, unit),
        formatBytes(space, unit),
        space >= stored ? formatBytes(space - stored, unit) : `${formatBytes(stored - space, unit)} too little`,
      ]),
    }),
    [lines, start, unit],
  );
  return (
    <Chart label="What is stored and what there is space for, over time" figures={figures} height={230} build={build} />
  );
}
