import type { Bytes } from "@/core/bytes/bytes";
import { formatChange, type UnitFamily } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import { flatStretches } from "@/core/nextDrive/flatStretches";
import { capital } from "@/core/words/capital";
import { withArticle } from "@/core/words/inSentence";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";
import { stretchWords } from "../../nextDrive/curveWords";
import type { Column, TerraceGeometry } from "./geometry";

/** What a drive of a size would bring here, in a sentence; why it could not come, where it could not. */
export function pointWords(curve: readonly CurvePoint[], index: number, unit: UnitFamily): string {
  const here = curve[index];
  if (!here) return "";
  const size = capital(withArticle(shortSize(here, unit)));
  if (!here.outcome.ok) return `${size} drive here: ${here.outcome.reason}`;
  const gain = here.gainBytes === 0 ? "adds nothing" : formatChange(here.gainBytes, unit);
  const then = here.thenBytes > here.gainBytes ? ` ${formatChange(here.thenBytes, unit)} once a second one comes.` : "";
  const stretch = flatStretches(curve).find(
    (each) => here.bytes >= each.from && (each.to === null || here.bytes <= each.to),
  );
  return `${size} drive here: ${gain}.${then}${stretch ? ` ${stretchWords(stretch, unit)}` : ""}`;
}

/** How far the curve stays from the sides of its bay, in CSS pixels. */
const INSET = 5;
/** What is this little above the top of the picture is still in it. */
const ROUNDING = 1.001;

/** Where the curve of a free bay stands: a drive's size upwards, what it adds to the right. */
export interface GhostScale {
  /** CSS pixels in the picture of the terraces, downwards. */
  yOf: (bytes: Bytes) => number;
  /** CSS pixels in the bay. */
  xOf: (gain: Bytes) => number;
  /** Whether a drive of the size has room in the picture. */
  fits: (bytes: Bytes) => boolean;
  /** The place in the curve of the size that is nearest to a height. */
  nearest: (y: number) => number;
  /** The place in the curve where the hand begins: about as large as the largest drive that there is. */
  middle: number;
}

export function ghostScale(
  curve: readonly CurvePoint[],
  { foot, top, most }: Pick<TerraceGeometry, "foot" | "top" | "most">,
  { width }: Pick<Column, "width">,
): GhostScale {
  const gains = Math.max(1, ...curve.map((point) => point.gainBytes));
  const yOf = (bytes: Bytes) => Math.max(top, foot - (bytes / most) * (foot - top));
  const fits = (bytes: Bytes) => bytes <= most * ROUNDING;
  const away = (y: number, point: CurvePoint) => (fits(point.bytes) ? Math.abs(yOf(point.bytes) - y) : Infinity);
  return {
    yOf,
    xOf: (gain) => INSET + (Math.max(0, gain) / gains) * (width - 2 * INSET),
    fits,
    nearest: (y) =>
      curve.reduce((best, point, i) => {
        const there = curve[best];
        return there && away(y, point) < away(y, there) ? i : best;
      }, 0),
    middle: Math.max(
      0,
      curve.findIndex((point) => point.bytes >= most * 0.74),
    ),
  };
}
