import { DAYS_OF_YEAR } from "./dataSet";

/** As far as is looked ahead. */
const FARTHEST_DAYS = Math.round(50 * DAYS_OF_YEAR);

/**
 * The first whole day on which something is so that stays so once it is, as what grows and never shrinks.
 *
 * @param since days before which is not looked
 * @returns days from today, or null if not within 50 years
 * @example firstDay((days) => days * 2 > 99) // 50
 */
export function firstDay(isSo: (days: number) => boolean, since = 0): number | null {
  if (isSo(since)) return since;
  if (!isSo(FARTHEST_DAYS)) return null;
  let [before, then] = [Math.floor(since), FARTHEST_DAYS];
  while (then - before > 1) {
    const middle = Math.floor((before + then) / 2);
    if (isSo(middle)) then = middle;
    else before = middle;
  }
  return then;
}
