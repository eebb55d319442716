"use client";

import { useCallback } from "react";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { useUnit } from "../preferences/preferences";
import { formatChange } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";

/** What is gained over the size of a drive: now, and once a second one of that size has come. */
export function SizeCurveChart({ curve }: { curve: readonly CurvePoint[] }) {
  const [unit] = useUnit();
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const scale = unit === "TB" ? 1e12 : 2 ** 40;
      const taken = curve.filter((point) => point.outcome.ok);
      const line = (gain: (point: CurvePoint) => number, name: string) => ({
        type: "scatter",
        x: taken.map((point) => point.bytes / scale),
        y: taken.map((point) => gain(point) / scale),
        text: taken.map((point) => `${shortSize(point, unit)}: ${formatChange(gain(point), unit)} ${name}`),
        hovertemplate: "%{text}<extra></extra>",
      });
      return {
        traces: [
          {
            ...line((point) => point.thenBytes, "once a second one comes"),
            mode: "lines",
            line: { color: colour("--parity"), width: 2, dash: "dot" },
          },
          {
            ...line((point) => point.gainBytes, "now"),
            mode: "lines+markers",
            line: { color: colour("--data"), width: 2.5 },
            marker: { size: 6, color: colour("--data") },
          },
        ],
        layout: {
          margin: { l: 46, r: 10, t: 8, b: 42 },
          xaxis: { ...axis(style, `Size of the drive (${unit})`), rangemode: "tozero" },
          yaxis: { ...axis(style, `More usable space (${unit})`), rangemode: "tozero" },
        },
      };
    },
    [curve, unit],
  );
  const figures = {
    head: ["Size of the drive", "gained at once", "with a second one"],
    rows: curve.flatMap((point) =>
      point.outcome.ok
        ? [[shortSize(point, unit), formatChange(point.gainBytes, unit), formatChange(point.thenBytes, unit)]]
        : [],
    ),
  };
  return <Chart label="More usable space over the size of the drive" figures={figures} height={216} build={build} />;
}
