import { ownValue } from "../records/ownValue";
import type { Choice } from "./compare";
import type { Figures } from "./figures";
import { lossShare, MEASURES, merit, type Measure } from "./measures";

/**
 * Everything that choices are compared by, turned so that more is better: the measures (the chance of loss for each
 * number of failures from one to four instead of relative to the tolerance), and each way to grow.
 */
function merits(figures: Figures): number[] {
  const { growth } = figures;
  return [
    ...MEASURES.filter(({ id }) => id !== "loss-of-one-more" && id !== "loss-of-two").map((measure) =>
      merit(measure, figures),
    ),
    ...[1, 2, 3, 4].map((failed) => -lossShare(figures, failed)),
    // Beyond the tolerance, a loss of what is on the failed drives is less than a loss of everything.
    figures.independent ? 1 : 0,
    growth.byDrive?.gainBytes ?? 0,
    growth.byGroup ? 1 : 0,
  ];
}

/** One is at least as likely to keep everything as another only where that is so at each end of each input too. */
function asSafe({ chanceRange: a }: Figures, { chanceRange: b }: Figures): boolean {
  if (!a || !b) return true;
  return Object.entries(b.ends).every(([name, [low, high]]) => {
    const own = ownValue(a.ends, name) ?? [a.tenYears.expected, a.tenYears.expected];
    return own[0] <= low && own[1] <= high;
  });
}

const asGood = (a: readonly number[], b: readonly number[]) => a.every((value, i) => value >= (b[i] ?? 0));

/**
 * Which choices are beaten in every figure: another is at least as good in all of them and better in one; of the chance
 * of loss also with each input at each end of its range, once that is known.
 *
 * @returns for each beaten choice's id the id of the one that beats it; of several, the one that holds most
 * @example beatenBy([raid0, span]).get(raid0.id) // undefined: the stripe is faster
 */
export function beatenBy(choices: readonly Pick<Choice, "id" | "figures">[]): Map<string, string> {
  const weighed = choices.map((choice) => ({ choice, merits: merits(choice.figures) }));
  const beaten = new Map<string, string>();
  for (const { choice, merits: own } of weighed) {
    const winners = weighed.filter(
      (other) =>
        asGood(other.merits, own) && !asGood(own, other.merits) && asSafe(other.choice.figures, choice.figures),
    );
    const [first] = winners.sort((a, b) => b.choice.figures.usableBytes - a.choice.figures.usableBytes);
    if (first) beaten.set(choice.id, first.choice.id);
  }
  return beaten;
}

/**
 * The choices that no other beats in both of two measures, best in the first measure first: what is joined in the
 * scatter. Choices of which a figure is not known are left out.
 *
 * @example frontier(choices, measureOf("usable"), measureOf("loss-of-two")).map(({ name }) => name)
 * // ["Span", "RAID 5", "RAID 6"]
 */
export function frontier<C extends Pick<Choice, "figures">>(choices: readonly C[], x: Measure, y: Measure): C[] {
  const known = choices.filter((choice) => x.of(choice.figures) !== null && y.of(choice.figures) !== null);
  const best = [...known].sort(
    (a, b) => merit(x, b.figures) - merit(x, a.figures) || merit(y, b.figures) - merit(y, a.figures),
  );
  let sofar = -Infinity;
  return best.filter((choice) => {
    const value = merit(y, choice.figures);
    if (value <= sofar) return false;
    sofar = value;
    return true;
  });
}
