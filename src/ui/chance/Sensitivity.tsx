"use client";

import { useCallback, useMemo } from "react";
import { ofBoxes } from "@/core/chance/chanceWords";
import type { Spread } from "@/core/chance/inputs";
import type { ChancesSoFar, MovedChances } from "@/core/chance/planChances";
import { axis, Chart, type ChartParts, type ChartStyle } from "../kit/Chart";
import { useMedia } from "../kit/useMedia";
import { inputGroupWords } from "./inputWords";

interface Props {
  told: ChancesSoFar;
  at: number;
  pool: number;
  hasSteps: boolean;
}

interface Bar extends Spread {
  name: string;
}

/** Bars that move it less than by this factor say nothing. */
const LEAST = 1.02;

const MOST_BARS = 9;

/** What each input moves a chance by, the widest first. */
const barsOf = (moved: readonly MovedChances[], of: (each: MovedChances) => Spread | undefined): Bar[] =>
  moved
    .flatMap((each) => {
      const range = of(each);
      return range ? [{ ...range, name: inputGroupWords(each.names) }] : [];
    })
    .filter(({ low, high }) => Math.max(low, high) > LEAST * Math.min(low, high))
    .sort((a, b) => widthOf(b) - widthOf(a))
    .slice(0, MOST_BARS);

const widthOf = ({ low, high }: Spread): number =>
  Math.abs(Math.log(Math.max(high, 1e-12)) - Math.log(Math.max(low, 1e-12)));

/** What each input, alone at its low and its high, makes of the chance: the widest bar is what is known least. */
export function Sensitivity({ told, at, pool, hasSteps }: Props) {
  const atRest = useMemo(
    () => barsOf(told.moved, ({ chances }) => chances.moments[at]?.pools[pool]?.year.any),
    [told, at, pool],
  );
  const along = useMemo(
    () => (hasSteps ? barsOf(told.moved, ({ chances }) => chances.along.any) : []),
    [told, hasSteps],
  );
  if (!told.ranged) return null;
  return (
    <section aria-labelledby="what-moves-it">
      <h2 id="what-moves-it" className="border-b border-line pb-1 font-serif text-lg">
        What moves it
      </h2>
      <p className="py-1.5 text-soft">Each input alone at its low and at its high, all others as expected.</p>
      <Bars title="In a year at rest" bars={atRest} />
      {along.length > 0 && <Bars title="On the way" bars={along} />}
    </section>
  );
}

/** On a phone a name stands in lines of about so many letters, so that the bars have their share of the width. */
const LINE = 19;

/** Words in lines, as a chart writes them. */
const inLines = (words: string): string =>
  words
    .split(" ")
    .reduce<string[]>((lines, word) => {
      const last = lines.at(-1);
      return last !== undefined && last.length + word.length < LINE
        ? [...lines.slice(0, -1), `${last} ${word}`]
        : [...lines, word];
    }, [])
    .join("<br>");

function Bars({ title, bars }: { title: string; bars: readonly Bar[] }) {
  const isNarrow = useMedia("(max-width: 639px)");
  const build = useCallback(
    (style: ChartStyle): ChartParts => {
      const { colour } = style;
      const rows = [...bars].reverse();
      const names = rows.map(({ name }) => (isNarrow ? inLines(name) : name));
      const edges = rows.map(({ low, high }) => [Math.min(low, high) * 1000, Math.max(low, high) * 1000] as const);
      return {
        traces: [
          {
            type: "bar",
            orientation: "h",
            y: names,
            base: edges.map(([least]) => least),
            x: edges.map(([least, most]) => most - least),
            text: rows.map(({ name, low, high }) => `${name}: ${ofBoxes(low)} to ${ofBoxes(high)}`),
            textposition: "none",
            hovertemplate: "%{text}<extra></extra>",
            marker: { color: colour("--data") },
          },
          {
            type: "scatter",
            mode: "markers",
            y: names,
            x: rows.map(({ expected }) => expected * 1000),
            hoverinfo: "skip",
            marker: { symbol: "line-ns", size: 18, line: { width: 2.5, color: colour("--parity") } },
          },
        ],
        layout: {
          margin: { l: 10, r: 14, t: 4, b: 42 },
          bargap: 0.45,
          // Lines at one, two and five of each power of ten.
          xaxis: { ...axis(style, "Of 1,000 boxes"), type: "log", dtick: "D2" },
          yaxis: { automargin: true, fixedrange: true },
        },
      };
    },
    [bars, isNarrow],
  );
  if (bars.length === 0) return <p className="py-1 text-soft">{title}: no input moves it.</p>;
  return (
    <>
      <h3 className="mt-1 font-semibold">{title}</h3>
      <Chart
        label={`${title}: what each input moves it by`}
        figures={{
          head: ["Input", "at its low", "at its high"],
          rows: bars.map(({ name, low, high }) => [name, ofBoxes(low), ofBoxes(high)]),
        }}
        height={70 + bars.length * (isNarrow ? 40 : 27)}
        build={build}
      />
    </>
  );
}
