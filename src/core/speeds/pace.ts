import type { BoxRules } from "../document/plan";

/** What of a box's rules decides how fast work on its pools goes. */
export type Pace = Pick<BoxRules, "preference" | "parityRateLimit">;

/** How the owner's preference moves the rate of such work. */
const PREFERENCE: Record<BoxRules["preference"], number> = { rebuild: 1.4, balanced: 1, users: 0.4 };

/**
 * The rate at which a box works through a drive to rebuild, fill, rewrite, check or spread what is on it: the share
 * of the drive's sequential rate that such work reaches, moved by the owner's preference, never more than the drive
 * itself does. What parity is worked out for goes no faster than the processor works it out.
 *
 * @param rate the drive's sequential rate, in bytes per second
 * @param share of it that such work reaches where users and work are balanced, above 0
 * @param parity whether parity has to be worked out
 * @returns bytes per second
 * @example workRate(150e6, 0.6, { preference: "users", parityRateLimit: null }, true) // 36 000 000
 */
export function workRate(rate: number, share: number, pace: Pace, parity: boolean): number {
  const worked = Math.min(rate, rate * share * PREFERENCE[pace.preference]);
  return parity && pace.parityRateLimit !== null ? Math.min(worked, pace.parityRateLimit) : worked;
}
