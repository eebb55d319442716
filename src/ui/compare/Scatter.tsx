"use client";

import { inSentence } from "@/core/words/inSentence";
import { useCallback } from "react";
import type { Choice } from "@/core/compare/compare";
import { frontier } from "@/core/compare/domination";
import { MEASURES, measureOf, type Measure } from "@/core/compare/measures";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { SelectBeside } from "../kit/Select";
import { useUnit } from "../preferences/preferences";
import { choiceName, measureWords } from "./figureWords";
import type { CompareState } from "./viewState";

/** Every choice as a point; those that none beats in both figures are joined. */
export function Scatter({
  choices,
  fitting,
  lit,
  axes,
  onAxes,
  onPoint,
  currency,
}: {
  choices: readonly Choice[];
  fitting: ReadonlySet<string>;
  lit: string | null;
  /** The plan's, for prices. */
  currency: string | undefined;
  axes: CompareState["axes"];
  onAxes: (axes: CompareState["axes"]) => void;
  onPoint: (id: string) => void;
}) {
  const [unit] = useUnit();
  const [x, y] = [measureOf(axes.x), measureOf(axes.y)];
  const figureOf = (measure: Measure, { figures }: Choice) => measureWords(measure, figures, unit, currency);
  const best = frontier(choices, x, y);
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const [across, up] = [measureOf(axes.x), measureOf(axes.y)];
      const scaled = (measure: Measure, choice: Choice) => (measure.of(choice.figures) ?? 0) / scaleOf(measure, unit);
      const known = choices.filter((choice) => across.of(choice.figures) !== null && up.of(choice.figures) !== null);
      const line = frontier(choices, across, up);
      const points = (list: readonly Choice[]) => ({
        x: list.map((choice) => scaled(across, choice)),
        y: list.map((choice) => scaled(up, choice)),
        customdata: list.map((choice) => choice.id),
        text: list.map(
          (choice) =>
            `${choiceName(choice)}<br>${across.name}: ` +
            `${measureWords(across, choice.figures, unit, currency)}<br>${up.name}: ` +
            `${measureWords(up, choice.figures, unit, currency)}`,
        ),
        hovertemplate: "%{text}<extra></extra>",
      });
      const [inside, outside] = [
        known.filter((choice) => fitting.has(choice.id)),
        known.filter((choice) => !fitting.has(choice.id)),
      ];
      const marked = known.filter((choice) => choice.id === lit);
      return {
        traces: [
          {
            type: "scatter",
            mode: "lines",
            ...points(line),
            line: { color: colour("--parity"), width: 2 },
            hoverinfo: "skip",
            hovertemplate: undefined,
          },
          {
            type: "scatter",
            mode: "markers",
            ...points(outside),
            marker: { size: 9, color: "rgba(0,0,0,0)", line: { color: colour("--line-strong"), width: 1.5 } },
          },
          { type: "scatter", mode: "markers", ...points(inside), marker: { size: 10, color: colour("--data") } },
          {
            type: "scatter",
            mode: "markers",
            ...points(marked),
            marker: { size: 17, color: "rgba(0,0,0,0)", line: { color: colour("--ink"), width: 2.5 } },
          },
        ],
        layout: {
          margin: { l: 46, r: 10, t: 10, b: 42 },
          xaxis: { ...axis(style, titleOf(across, unit, currency)), ...kindOf(across) },
          yaxis: { ...axis(style, titleOf(up, unit, currency)), ...kindOf(up) },
          hovermode: "closest",
        },
      };
    },
    [choices, fitting, lit, axes, unit, currency],
  );
  return (
    <div>
      <div className="flex flex-wrap gap-x-3 gap-y-1 text-[0.93rem]">
        <SelectBeside label="Across" value={axes.x} options={AXES} onChange={(next) => onAxes({ ...axes, x: next })} />
        <SelectBeside label="Up" value={axes.y} options={AXES} onChange={(next) => onAxes({ ...axes, y: next })} />
      </div>
      <Chart
        label={`Every choice by ${inSentence(x.name)} and ${inSentence(y.name)}`}
        figures={{
          head: ["Choice", x.name, y.name],
          rows: choices.map((choice) => [choiceName(choice), figureOf(x, choice), figureOf(y, choice)]),
        }}
        height={264}
        build={build}
        onPoint={onPoint}
      />
      <p className="text-[0.87rem] text-soft">
        Joined: those that no other beats in both. Outlined: what does not fit your needs. Press a point to go to its
        picture.
      </p>
      <ul className="mt-2 text-[0.9rem]" aria-label="The best of both">
        {best.map((choice) => (
          <li key={choice.id} className="border-b border-line last:border-0">
            <button
              type="button"
              onClick={() => onPoint(choice.id)}
              className="flex w-full justify-between gap-2 py-1 text-left hover:bg-wall"
            >
              <span>{choiceName(choice)}</span>
              <span className="text-right whitespace-nowrap text-soft">
                {figureOf(x, choice)}, {figureOf(y, choice)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Chances lie apart by powers of ten. */
const kindOf = (measure: Measure): object => (measure.unit === "chance" ? { type: "log" } : { rangemode: "tozero" });

const scaleOf = (measure: Measure, unit: "TB" | "TiB") =>
  measure.unit === "bytes"
    ? unit === "TB"
      ? 1e12
      : 2 ** 40
    : measure.unit === "rate"
      ? 1e6
      : measure.unit === "share"
        ? 0.01
        : measure.unit === "chance"
          ? 0.001
          : 1;

function titleOf(measure: Measure, unit: "TB" | "TiB", currency: string | undefined): string {
  const units: Record<Measure["unit"], string> = {
    bytes: unit,
    share: "%",
    rate: "MB/s",
    hours: "h",
    "money per TB": currency ?? "",
    drives: "",
    chance: "of 1,000",
    "": "",
  };
  return units[measure.unit] ? `${measure.name} (${units[measure.unit]})` : measure.name;
}

const AXES = MEASURES.map(({ id, name }) => ({ value: id, label: name }));
