"use client";

import { useCallback } from "react";
import { dayAfter } from "@/core/time/days";
import { storedAfter } from "@/core/data/stored";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import type { Dates } from "../calendar/useDates";
import { axis, Chart, type ChartStyle } from "../kit/Chart";
import { useUnit } from "../preferences/preferences";
import { fileSystemCapacity } from "@/core/box/capacities";
import type { Walk } from "@/core/walk/moment";

/** So far is looked ahead where nothing asks for more, and at most, in days. */
const LEAST_DAYS = 2 * 365;
const MOST_DAYS = 10 * 365;
const POINTS = 60;

/** What is stored against what there is, over the years: by the plan and without it. */
export function DemandChart({ walked, dates }: { walked: Walk; dates: Dates }) {
  const [unit] = useUnit();
  const build = useCallback(
    (style: ChartStyle) => {
      const { plan, moments } = walked;
      const { demands, times, start } = dates;
      const divisor = unit === "TB" ? 1e12 : 2 ** 40;
      const ids = new Set(demands.map((each) => each.volume.id));
      const ends = [
        ...demands.flatMap((each) => [each.fullWithPlan ?? 0, each.fullWithoutPlan ?? 0]),
        ...times.map((time) => time.end),
      ];
      const days = Math.min(MOST_DAYS, Math.max(LEAST_DAYS, 1.3 * Math.max(...ends)));
      const capacityAt = (index: number) =>
        (moments[index]?.state.plan.pools ?? [])
          .flatMap((pool) => pool.volumes)
          .filter((volume) => ids.has(volume.id))
          .reduce(
            (sum, volume) => sum + fileSystemCapacity(volume) * (1 - (volume.headroomShare ?? DEFAULT_HEADROOM)),
            0,
          ) / divisor;
      const grid = Array.from({ length: POINTS + 1 }, (_, i) => (i * days) / POINTS);
      const stored = grid.map(
        (day) => demands.reduce((sum, each) => sum + storedAfter(plan, each.volume, day), 0) / divisor,
      );
      const steps = [
        { day: 0, value: capacityAt(0) },
        ...times.map((time, i) => ({ day: time.end, value: capacityAt(i + 1) })),
        { day: days, value: capacityAt(moments.length - 1) },
      ];
      const date = (day: number) => dayAfter(start, day);
      const line = (name: string, xs: number[], ys: number[], look: object) => ({
        type: "scatter",
        mode: "lines",
        name,
        x: xs.map(date),
        y: ys,
        hovertemplate: `${name}: %{y:.1f} ${unit}<br>%{x}<extra></extra>`,
        ...look,
      });
      return {
        traces: [
          ...(plan.steps.length > 0
            ? [
                line("space without the plan", [0, days], [capacityAt(0), capacityAt(0)], {
                  line: { color: style.colour("--line-strong"), width: 2, dash: "dot" },
                }),
              ]
            : []),
          line(
            "space",
            steps.map((each) => each.day),
            steps.map((each) => each.value),
            { line: { color: style.colour("--data"), width: 2.5, shape: "hv" } },
          ),
          line("stored", grid, stored, { line: { color: style.colour("--ink"), width: 2, dash: "dash" } }),
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
    [walked, dates, unit],
  );
  return (
    <Chart
      label="What is stored and what there is space for, over time; the dates stand above."
      height={230}
      build={build}
    />
  );
}
