import { formatBytes, formatChange, type UnitFamily } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { FlatStretch } from "@/core/nextDrive/flatStretches";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";

/** A flat stretch in words: sizes that bring the same. */
export function stretchWords(stretch: FlatStretch, unit: UnitFamily): string {
  const from = shortSize({ bytes: stretch.from }, unit);
  const gain = stretch.gainBytes <= 0 ? "nothing" : `${formatBytes(stretch.gainBytes, unit)}, and nothing more`;
  if (stretch.to === null) return `From ${from} upwards ${gain} until a second one comes.`;
  return (
    `From ${from} to ${shortSize({ bytes: stretch.to }, unit)} ` +
    (stretch.gainBytes <= 0 ? "nothing" : `the same: ${formatChange(stretch.gainBytes, unit)}`) +
    "."
  );
}

/** What the box refuses at the small end of a curve, or null. */
export function refusalWords(curve: readonly CurvePoint[], unit: UnitFamily): string | null {
  const refused = curve.filter((point) => !point.outcome.ok);
  const last = refused.at(-1);
  if (!last || last.outcome.ok) return null;
  return refused.length === curve.length
    ? last.outcome.reason
    : `Up to ${shortSize(last, unit)}: ${last.outcome.reason}`;
}
