import { useUnit } from "../../preferences/preferences";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";
import type { Column, TerraceGeometry } from "./geometry";
import type { GhostScale } from "./ghostCurve";

/** Narrower bays have no room for words. */
const WORDS_FROM = 76;

interface Props {
  curve: readonly CurvePoint[];
  /** The size that the hand is at, where it is at one. */
  point: CurvePoint | null;
  column: Column;
  geometry: TerraceGeometry;
  scale: GhostScale;
}

/** The curve in a free bay, the outline of the drive that is thought of, and from which size one can come at all. */
export function GhostPicture({ curve, point, column: { width }, geometry: { foot, top }, scale }: Props) {
  const { xOf, yOf, fits } = scale;
  const dots = curve.filter((each) => each.outcome.ok && fits(each.bytes));
  const line = dots.map((each) => `${xOf(each.gainBytes).toFixed(1)},${yOf(each.bytes).toFixed(1)}`);
  const hasWords = width >= WORDS_FROM;
  return (
    <svg
      width={width}
      height={foot - top}
      viewBox={`0 ${top} ${width} ${foot - top}`}
      aria-hidden="true"
      className="pointer-events-none block"
    >
      <rect
        x={0.5}
        y={top + 0.5}
        width={width - 1}
        height={foot - top - 1}
        fill={point === null ? "none" : "var(--wall)"}
        stroke="var(--line)"
        strokeDasharray="2 4"
      />
      {point && fits(point.bytes) && (
        <rect
          x={1.5}
          y={yOf(point.bytes)}
          width={width - 3}
          height={foot - yOf(point.bytes)}
          fill="none"
          stroke="var(--data)"
          strokeDasharray="5 3"
          strokeWidth="1.5"
        />
      )}
      {line.length > 1 && <polyline points={line.join(" ")} fill="none" stroke="var(--data)" strokeWidth="2" />}
      {dots.map((each) => (
        <circle key={each.bytes} cx={xOf(each.gainBytes)} cy={yOf(each.bytes)} r={2.6} fill="var(--data)" />
      ))}
      {point && point.outcome.ok && fits(point.bytes) && (
        <circle cx={xOf(point.gainBytes)} cy={yOf(point.bytes)} r={5} fill="none" stroke="var(--ink)" strokeWidth="2" />
      )}
      {hasWords && <FirstTaken curve={curve} width={width} scale={scale} />}
      {hasWords && (
        <text x={width / 2} y={foot - 10} textAnchor="middle" fontSize="12" fill="var(--soft)">
          what if …?
        </text>
      )}
    </svg>
  );
}

/** From which size a drive can come here, where not from the smallest. */
function FirstTaken({ curve, width, scale: { yOf, fits } }: Pick<Props, "curve" | "scale"> & { width: number }) {
  const [unit] = useUnit();
  const first = curve.find((each) => each.outcome.ok);
  if (!first || first === curve[0] || !fits(first.bytes)) return null;
  const y = yOf(first.bytes);
  return (
    <g>
      <line x1={0} x2={width} y1={y} y2={y} stroke="var(--line-strong)" strokeDasharray="2 3" />
      <text x={width / 2} y={y + 16} textAnchor="middle" fontSize="12" fill="var(--soft)">
        from {shortSize(first, unit)}
      </text>
    </g>
  );
}
