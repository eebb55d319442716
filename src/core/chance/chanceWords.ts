import type { Spread } from "./inputs";
import type { Cause } from "./otherCauses";

/** Less than this is not told more closely. */
export const LEAST_TOLD = 1e-5;

/** Of so many boxes something is told, so that at least one loses it. */
function crowdOf(chance: number): number {
  return [1000, 10_000, 100_000].find((crowd) => chance * crowd >= 0.95) ?? 100_000;
}

/** Never more than two digits: 107.7 of 1,000 is told as 110. */
function twoDigits(value: number): number {
  if (value < 10) return Math.round(value);
  const unit = 10 ** (Math.floor(Math.log10(value)) - 1);
  return Math.round(value / unit) * unit;
}

/** By hand: the first page says this too, and the first use of Intl costs a phone a sixth of a second. */
const grouped = (value: number): string => String(value).replace(/\B(?=(\d{3})+$)/g, ",");

/**
 * A chance as so many of a crowd of like boxes.
 *
 * @param chance of 1
 * @example ofBoxes(0.0029) // "3 of 1,000"
 */
export function ofBoxes(chance: number): string {
  if (chance <= 0) return "none";
  if (chance < LEAST_TOLD) return "fewer than 1 of 100,000";
  if (chance >= 0.9995) return "all";
  const crowd = crowdOf(chance);
  return `${grouped(twoDigits(chance * crowd))} of ${grouped(crowd)}`;
}

/**
 * The range of a chance, counted among as many boxes as what is expected.
 *
 * @example rangeWords({ low: 0.0009, expected: 0.0029, high: 0.054 }) // "between 1 and 54"
 */
export function rangeWords({ low, expected, high }: Spread): string {
  // What is too little to be counted has its own crowd at most.
  if (expected < LEAST_TOLD) return high < LEAST_TOLD ? "whatever the inputs" : `at most ${ofBoxes(high)}`;
  const crowd = crowdOf(expected);
  const [least, most] = [twoDigits(low * crowd), twoDigits(high * crowd)];
  return least < 1 ? `up to ${grouped(most)}` : `between ${grouped(least)} and ${grouped(most)}`;
}

/**
 * A chance with its range, as soon as that is known.
 *
 * @example chanceWords({ low: 0.0009, expected: 0.0029, high: 0.054 }) // "3 of 1,000 (between 1 and 54)"
 */
export const chanceWords = (chance: Spread | number): string =>
  typeof chance === "number"
    ? ofBoxes(chance)
    : chance.expected > 0 && chance.expected < 1
      ? `${ofBoxes(chance.expected)} (${rangeWords(chance)})`
      : ofBoxes(chance.expected);

/**
 * The same in as few words as can be, for lists.
 *
 * @example shortChanceWords({ low: 0.017, expected: 0.054, high: 0.48 }) // "54 of 1,000 (17 to 480)"
 */
export function shortChanceWords(chance: Spread | number): string {
  if (typeof chance === "number" || chance.expected < LEAST_TOLD || chance.expected >= 1) return chanceWords(chance);
  const crowd = crowdOf(chance.expected);
  const [least, most] = [twoDigits(chance.low * crowd), twoDigits(chance.high * crowd)];
  return `${ofBoxes(chance.expected)} (${grouped(least)} to ${grouped(most)})`;
}

const NAMES: Readonly<Record<Cause, string>> = {
  waiting: "another drive fails before the new one is in",
  rebuilding: "another drive fails during a rebuild",
  sector: "a spot cannot be read when it is needed",
  "power-cut": "a power cut while all is rewritten",
  theft: "theft or fire",
  deletion: "deletion by mistake",
};

/** What costs data, in a few words. */
export const causeWords = (cause: Cause): string => NAMES[cause];
