"use client";

import { useCallback, useMemo } from "react";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { axis, Chart, type ChartParts, type ChartStyle } from "../../kit/Chart";
import { Dialog } from "../../kit/Dialog";
import { Swatch } from "../../kit/Swatch";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { waterfallBars, type WaterfallBar } from "./waterfallBars";
import { CAUSES, placesOf } from "./words";

const TOTALS = {
  all: { name: "All its drives", why: "The exact sizes of the drives, added up.", swatch: "spare" as const },
  usable: { name: "Usable", why: "What the pool offers.", swatch: "data" as const },
};
const wordsOf = (bar: WaterfallBar): (typeof CAUSES)[keyof typeof CAUSES] =>
  bar.cause === "all" || bar.cause === "usable" ? TOTALS[bar.cause] : CAUSES[bar.cause];

/** Pattern as well as hue, as in the terraces. */
const SHAPES = { data: "", copies: ".", parity: "/", spare: "", idle: "", reserve: "", lost: "x" };
const COLOURS = {
  data: "--data",
  copies: "--data",
  parity: "--parity",
  spare: "--ground",
  idle: "--ground",
  reserve: "--reserve",
  lost: "--geranium",
};

/** Where every byte went, as a waterfall and as the table behind it. */
export function WaterfallDialog({ pool, onClose }: { pool: PoolPrediction; onClose: () => void }) {
  const { plan } = useWorkbench();
  const [unit] = useUnit();
  const bars = useMemo(() => waterfallBars(pool.ledger, pool.volumes.length > 0), [pool]);
  const drivesOf = (bar: WaterfallBar) => pool.ledger.find((entry) => entry.cause === bar.cause)?.drives ?? [];
  const other = unit === "TB" ? "TiB" : "TB";
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Where the bytes of ${pool.name} went`}
      about={
        `${formatBytes(pool.usableBytes, unit)} is ${formatBytes(pool.usableBytes, other)}: the same bytes, ` +
        "counted in another unit. That step is no loss."
      }
    >
      <BarChart bars={bars} />
      <table className="mt-2 w-full text-[0.93rem]">
        <caption className="sr-only">The same figures, which sum to the drives exactly</caption>
        <thead>
          <tr className="border-b border-line text-left text-soft">
            <th scope="col" className="py-1 font-normal">
              Cause
            </th>
            <th scope="col" className="py-1 font-normal max-sm:hidden">
              Why, and which drives
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Size
            </th>
            <th scope="col" className="py-1 pl-3 text-right font-normal">
              Exactly
            </th>
          </tr>
        </thead>
        <tbody>
          {bars.map((bar) => {
            const { name, why, swatch, mark } = wordsOf(bar);
            const drives = drivesOf(bar);
            const total = bar.cause === "all" || bar.cause === "usable";
            return (
              <tr key={bar.cause} className={`border-b border-line align-top ${total ? "font-semibold" : ""}`}>
                <th scope="row" className={`py-1 pr-3 text-left ${total ? "font-semibold" : "font-normal"}`}>
                  <span className="flex items-center gap-2 whitespace-nowrap">
                    <Swatch kind={swatch} mark={mark} />
                    {name}
                  </span>
                </th>
                <td className="py-1 pr-3 font-normal text-soft max-sm:hidden">
                  {why}
                  {drives.length > 0 && ` ${placesOf(plan, drives).replace(/^b/, "B")}.`}
                </td>
                <td className="py-1 text-right whitespace-nowrap">{formatBytes(bar.bytes, unit)}</td>
                <td className="py-1 pl-3 text-right whitespace-nowrap" data-testid={`exact-${bar.cause}`}>
                  {formatExactBytes(bar.bytes)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Dialog>
  );
}

function BarChart({ bars }: { bars: readonly WaterfallBar[] }) {
  const [unit] = useUnit();
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const scale = unit === "TB" ? 1e12 : 2 ** 40;
      const swatches = bars.map((bar) => wordsOf(bar).swatch);
      const trace = {
        type: "bar",
        x: bars.map((bar) => wordsOf(bar).name),
        y: bars.map((bar) => bar.bytes / scale),
        base: bars.map((bar) => bar.base / scale),
        text: bars.map((bar) => formatBytes(bar.bytes, unit)),
        textposition: "outside",
        cliponaxis: false,
        hovertemplate: "%{x}: %{text}<extra></extra>",
        marker: {
          color: swatches.map((swatch) => colour(COLOURS[swatch])),
          line: {
            color: swatches.map((swatch) =>
              swatch === "idle"
                ? colour("--idle-edge")
                : swatch === "spare"
                  ? colour("--data")
                  : colour(COLOURS[swatch]),
            ),
            width: 1,
          },
          pattern: {
            shape: swatches.map((swatch) => SHAPES[swatch]),
            fgcolor: swatches.map((swatch) =>
              colour(swatch === "copies" ? "--data" : swatch === "lost" ? "--on-geranium" : "--parity"),
            ),
            bgcolor: swatches.map((swatch) =>
              swatch === "copies"
                ? colour("--copies-ground")
                : swatch === "parity"
                  ? colour("--parity-ground")
                  : colour(COLOURS[swatch]),
            ),
            size: 7,
          },
        },
      };
      return {
        traces: [trace],
        layout: {
          margin: { l: 48, r: 12, t: 24, b: 70 },
          yaxis: axis(style, unit),
          xaxis: { fixedrange: true, tickangle: -30 },
        },
      };
    },
    [bars, unit],
  );
  return <Chart label="Waterfall from all drives to what is usable" figures="below" height={280} build={build} />;
}
