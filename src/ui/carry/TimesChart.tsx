"use client";

import { useCallback, useMemo } from "react";
import type { LogbookLine } from "@/core/logbook/logbookLines";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { whenWords } from "./when";

/** Entries of which both is known: what was expected and what came. */
const timed = (lines: readonly LogbookLine[]) =>
  lines.flatMap((line) =>
    line.hours !== null && line.hours > 0 && line.predicted && line.predicted.low > 0
      ? [{ line, hours: line.hours, predicted: line.predicted }]
      : [],
  );

/** Where the axis of hours has its lines, on a scale on which the same share is as wide everywhere. */
const TICKS = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

/** What was predicted of each work, as a range, and how long it took. */
export function TimesChart({ lines }: { lines: readonly LogbookLine[] }) {
  const shown = useMemo(() => timed(lines).slice(0, 60).reverse(), [lines]);
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const x = shown.map((_, i) => i + 1);
      const words = shown.map(
        ({ line, hours, predicted }) =>
          `${line.title}<br>${whenWords(line.start)}<br>expected ${predicted.low.toFixed(1)} to ` +
          `${predicted.high.toFixed(1)} h, took ${hours.toFixed(1)} h`,
      );
      const within = shown.map(({ hours, predicted }) => hours >= predicted.low && hours <= predicted.high);
      return {
        traces: [
          {
            type: "scatter",
            mode: "markers",
            name: "Expected, four of five times",
            x,
            y: shown.map(({ predicted }) => predicted.expected),
            error_y: {
              type: "data",
              symmetric: false,
              array: shown.map(({ predicted }) => predicted.high - predicted.expected),
              arrayminus: shown.map(({ predicted }) => predicted.expected - predicted.low),
              color: colour("--parity"),
              thickness: 3,
              width: 7,
            },
            marker: { size: 1, color: colour("--parity") },
            hoverinfo: "skip",
          },
          {
            type: "scatter",
            mode: "markers",
            name: "Took",
            x,
            y: shown.map(({ hours }) => hours),
            text: words,
            hovertemplate: "%{text}<extra></extra>",
            marker: {
              size: 11,
              symbol: within.map((is) => (is ? "circle" : "diamond-open")),
              color: colour("--data"),
              line: { width: 2, color: colour("--data") },
            },
          },
        ],
        layout: {
          margin: { l: 52, r: 10, t: 10, b: 42 },
          xaxis: {
            ...axis(style, "Entry, the oldest first"),
            showgrid: false,
            dtick: shown.length > 20 ? 5 : 1,
            range: [0.4, shown.length + 0.6],
          },
          yaxis: { ...axis(style, "Hours"), type: "log", tickmode: "array", tickvals: TICKS },
          showlegend: false,
          hovermode: "closest",
        },
      };
    },
    [shown],
  );
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby="times" className="mt-6">
      <h2 id="times" className="font-serif text-lg">
        Expected and come
      </h2>
      <Chart
        label="How long each work was expected to take, as a range, and how long it took"
        figures={{
          head: ["Work", "when", "expected", "took"],
          rows: shown.map(({ line, hours, predicted }) => [
            line.title,
            whenWords(line.start),
            `${predicted.low.toFixed(1)} to ${predicted.high.toFixed(1)} h`,
            `${hours.toFixed(1)} h`,
          ]),
        }}
        height={264}
        build={build}
      />
      <p className="text-[0.87rem] text-soft">
        Bar: between what it was expected to take, in four of five cases. Dot: what it took; an open diamond lies
        outside its bar.
      </p>
    </section>
  );
}
