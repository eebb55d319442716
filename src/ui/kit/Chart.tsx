"use client";

import { useEffect, useRef, useState } from "react";
import { Button } from "./Button";
import { FiguresTable, type Figures } from "./FiguresTable";
import { useLook } from "./useLook";

/** What a chart is drawn from: Plotly's traces and layout. */
export interface ChartParts {
  traces: object[];
  layout: object;
}

/** The page's colours and type, for a chart: `colour("--data")`. */
export interface ChartStyle {
  colour: (name: string) => string;
  font: string;
}

interface Props {
  /** What the chart shows. */
  label: string;
  /** The same as a table, which stands under it; or where on the page its figures stand in words already. */
  figures: Figures | "above" | "beside it" | "below";
  /** In CSS pixels. */
  height: number;
  /** Changes when what is to be drawn does (`useCallback`). */
  build: (style: ChartStyle) => ChartParts;
  /** The `customdata` of a point that was pressed. */
  onPoint?: (data: string) => void;
}

interface PlotlyElement extends HTMLDivElement {
  on?: (event: string, handler: (event: { points: { customdata?: unknown }[] }) => void) => void;
}

/**
 * A chart of Plotly, which is loaded with the first one. It is hidden from screen readers, since its figures stand
 * beside it as text, or under it as a table; charts of the page share their look here.
 */
export function Chart({ label, figures, height, build, onPoint }: Props) {
  const element = useRef<PlotlyElement>(null);
  const [state, setState] = useState<"loading" | "shown" | "broken">("loading");
  const [attempt, setAttempt] = useState(0);
  const look = useLook();
  const pressed = useRef(onPoint);
  useEffect(() => {
    pressed.current = onPoint;
  });
  useEffect(() => {
    const place = element.current;
    if (!place) return;
    let gone = false;
    let purge: (() => void) | null = null;
    const draw = async () => {
      const { default: Plotly } = await import("plotly.js-cartesian-dist-min");
      if (gone) return;
      const style = getComputedStyle(document.documentElement);
      const colour = (name: string) => style.getPropertyValue(name).trim();
      const { traces, layout } = build({ colour, font: style.fontFamily });
      const common = {
        height,
        paper_bgcolor: "rgba(0,0,0,0)",
        plot_bgcolor: "rgba(0,0,0,0)",
        font: { family: style.fontFamily, size: 12, color: colour("--ink") },
        showlegend: false,
        hoverlabel: {
          bgcolor: colour("--raised"),
          bordercolor: colour("--line-strong"),
          font: { color: colour("--ink") },
        },
      };
      await Plotly.react(place, traces, { ...common, ...layout }, { displayModeBar: false, responsive: true });
      purge = () => Plotly.purge(place);
      place.on?.("plotly_click", ({ points }) => {
        const data = points[0]?.customdata;
        if (typeof data === "string") pressed.current?.(data);
      });
      if (gone) purge();
      else setState("shown");
    };
    draw().catch(() => setState("broken"));
    return () => {
      gone = true;
      purge?.();
    };
  }, [build, height, attempt, look]);
  const where = typeof figures === "string" ? figures : "in the table under it";
  return (
    <figure aria-label={`${label}; its figures stand ${where}`}>
      {state === "loading" && <p className="text-soft">Drawing …</p>}
      {state === "broken" && (
        <p className="text-soft">
          The chart could not be drawn here. Its figures stand {where}.{" "}
          <Button
            small
            onClick={() => {
              setState("loading");
              setAttempt(attempt + 1);
            }}
          >
            Try again
          </Button>
        </p>
      )}
      {/* The inner element is Plotly's own: it keeps its class there, so React must not touch it. */}
      <div aria-hidden="true" style={{ minHeight: height }}>
        <div ref={element} />
      </div>
      {typeof figures !== "string" && <FiguresTable figures={figures} />}
    </figure>
  );
}

/** An axis in the page's look. */
export function axis({ colour }: ChartStyle, title: string): object {
  return {
    title: { text: title, standoff: 8 },
    gridcolor: colour("--line"),
    zerolinecolor: colour("--line-strong"),
    fixedrange: true,
    automargin: true,
  };
}
