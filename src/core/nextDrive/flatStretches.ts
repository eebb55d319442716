import type { Bytes } from "../bytes/bytes";
import type { CurvePoint } from "./sizeCurve";

/** A run of sizes that bring the same. `to` is the largest, or null where it goes on upwards. */
export interface FlatStretch {
  from: Bytes;
  to: Bytes | null;
  gainBytes: Bytes;
}

/**
 * The stretches of a curve over which a larger drive brings nothing more, smallest sizes first. Sizes that the box
 * refuses are no part of any.
 *
 * @example flatStretches(curveOfRaid5).at(-1)
 * // { from: 4 TB, to: null, gainBytes: 4 TB }: from 4 TB upwards nothing more
 */
export function flatStretches(curve: readonly CurvePoint[]): FlatStretch[] {
  const stretches: FlatStretch[] = [];
  let run: CurvePoint[] = [];
  const close = (last: boolean) => {
    const [first] = run;
    const end = run.at(-1);
    if (first && end && run.length > 1)
      stretches.push({ from: first.bytes, to: last ? null : end.bytes, gainBytes: first.gainBytes });
    run = [];
  };
  for (const point of curve) {
    if (!point.outcome.ok || (run[0] && run[0].gainBytes !== point.gainBytes)) close(false);
    if (point.outcome.ok) run.push(point);
  }
  close(true);
  return stretches;
}
