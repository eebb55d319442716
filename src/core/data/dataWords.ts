import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { DataSet, Volume, Worth } from "../document/plan";
import { DEFAULT_HEADROOM } from "../ledger/volumes";
import { plainDayWords } from "../time/dateWords";
import { dayAfter } from "../time/days";

/** How bad the loss of data would be, in words. */
export const WORTH_WORDS: Record<Worth, string> = {
  replaceable: "can be had again",
  useful: "would cost work",
  precious: "cannot be had again",
};

/**
 * How a data set grows, in words.
 *
 * @example growthWords({ growth: { sharePerYear: 0.1 } }, "TB") // "10 % a year"
 */
export function growthWords({ growth }: Pick<DataSet, "growth">, family: UnitFamily): string {
  if (growth === undefined) return "does not grow";
  return "bytesPerMonth" in growth
    ? `${formatBytes(growth.bytesPerMonth, family)} a month`
    : `${Math.round(growth.sharePerYear * 1000) / 10} % a year`;
}

/**
 * The day on which something is full, in words.
 *
 * @param days from the start on; null if not within 50 years
 * @param start as YYYY-MM-DD
 * @example fullWords(20, "2026-11-23") // "13 Dec 2026"
 */
export function fullWords(days: number | null, start: string): string {
  return days === null ? "not within 50 years" : days <= 0 ? "now" : plainDayWords(dayAfter(start, days));
}

/**
 * When a volume comes to what its owner wants to keep free of it, in words that follow its name: "full" alone would
 * leave open whether anything can still be stored.
 *
 * @param days from the start on; null if not within 50 years
 * @param start as YYYY-MM-DD
 * @example reachesWords({ headroomShare: 0.2 }, 20, "2026-11-23") // "will reach your 20 % reserve on 13 Dec 2026"
 * @example reachesWords({ headroomShare: 0 }, 0, "2026-11-23") // "is completely full"
 */
export function reachesWords({ headroomShare }: Pick<Volume, "headroomShare">, days: number | null, start: string) {
  const share = Math.round((headroomShare ?? DEFAULT_HEADROOM) * 100);
  const reserve = `your ${share} % reserve`;
  if (days === null) return share === 0 ? "is not full within 50 years" : `does not reach ${reserve} within 50 years`;
  if (days <= 0) return share === 0 ? "is completely full" : `has reached ${reserve}`;
  return `will ${share === 0 ? "be completely full" : `reach ${reserve}`} on ${fullWords(days, start)}`;
}
