import type { Bytes } from "../bytes/bytes";
import { nominalBytes } from "../bytes/nominalBytes";
import type { Plan, Pool } from "../document/plan";
import { placementsIn, usableWith, type Outcome, type Placed, type Placement } from "./placements";

/** What one more drive, or another in a bay, of one size would bring. */
export interface CurvePoint {
  bytes: Bytes;
  outcome: Outcome;
  /** The change of usable space now; 0 where the box would refuse it. */
  gainBytes: Bytes;
  /** The change once a second one of the size has come too, wherever it helps most. */
  thenBytes: Bytes;
}

/** The sizes at which the curve is worked out: those that hard disks are sold in today. */
export const CURVE_SIZES: readonly Bytes[] = [1, 2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24, 26, 28, 30, 32].map(
  (terabytes) => nominalBytes(terabytes * 1000),
);

const of = (bytes: Bytes, at: Placement): Placed => ({ bytes, medium: "hdd", bus: "sata", at });

/**
 * Usable space over the size of one more drive, or of a replacement: a point for each size that is sold and each that
 * the pool has.
 *
 * @param at where the drive would go
 * @example sizeCurve(clinic, clinic.pools[0], { kind: "replace", drive: "d1" }).map(({ gainBytes }) => gainBytes)
 */
export function sizeCurve(plan: Plan, pool: Pool, at: Placement): CurvePoint[] {
  const now = usableWith(plan, pool, []);
  const base = now.ok ? now.usableBytes : 0;
  const members = new Set(pool.groups.flatMap((group) => group.drives));
  const own = plan.drives.filter((drive) => members.has(drive.id)).map((drive) => drive.bytes);
  const sizes = [...new Set([...CURVE_SIZES, ...own])].sort((a, b) => a - b);
  const places = placementsIn(pool);
  return sizes.map((bytes) => {
    const outcome = usableWith(plan, pool, [of(bytes, at)]);
    const gain = outcome.ok ? outcome.usableBytes - base : 0;
    const second = outcome.ok
      ? places.filter(
          (place) =>
            place.kind !== "further-group" &&
            !(place.kind === "replace" && at.kind === "replace" && place.drive === at.drive),
        )
      : [];
    const then = second.flatMap((place) => {
      const both = usableWith(plan, pool, [of(bytes, at), of(bytes, place)]);
      return both.ok ? [both.usableBytes - base] : [];
    });
    return { bytes, outcome, gainBytes: gain, thenBytes: Math.max(gain, ...then) };
  });
}

/** A place for one more drive, with what each size would bring there. */
export interface PlacedCurve {
  at: Placement & { kind: "add" };
  curve: CurvePoint[];
}

/**
 * The group of a pool that gains most from one more drive, with its curve; null for a pool without groups. A second or
 * more for a full box with many groups: for a worker.
 *
 * @example bestCurve(clinic, clinic.pools[0]) // { at: { kind: "add", group: "g2" }, curve: [ … ] }
 */
export function bestCurve(plan: Plan, pool: Pool): PlacedCurve | null {
  const curves = pool.groups.map((group): PlacedCurve => {
    const at = { kind: "add", group: group.id } as const;
    return { at, curve: sizeCurve(plan, pool, at) };
  });
  const most = (curve: readonly CurvePoint[]) => Math.max(...curve.map((point) => point.gainBytes));
  return curves.reduce<PlacedCurve | null>(
    (best, each) => (best === null || most(each.curve) > most(best.curve) ? each : best),
    null,
  );
}
