import type { Choice } from "./compare";
import { beatenBy } from "./domination";
import { lossShare } from "./measures";

/** How many choices are proposed at most to somebody who has just typed some drives. */
export const MOST_LISTED = 5;
/** So many of them at most protect the data; one that does not stands below, to compare with. */
const MOST_PROTECTED = 4;

/** What an owner who looks at a choice for the first time holds it by. */
const outline = ({ figures }: Choice) =>
  [figures.usableBytes, figures.tolerance, lossShare(figures, figures.tolerance + 1)].join();

/**
 * The few choices that are worth a first look: for each number of failed drives that can be survived the one that
 * holds most, then those that hold most of the rest, and one without protection. Of those that hold and survive the
 * same only the first is listed, and none that another beats in everything.
 *
 * @returns at most `MOST_LISTED`: what protects the data first, the largest first
 * @example shortlist(comparisonOf4And4And8TB.choices).map(({ name }) => name)
 * // ["Hybrid (one)", "RAID 5", "RAID 1", "Separate"]
 */
export function shortlist(choices: readonly Choice[]): Choice[] {
  const beaten = beatenBy(choices);
  const seen = new Set<string>();
  const worth = [...choices]
    .sort(
      (a, b) =>
        b.figures.usableBytes - a.figures.usableBytes ||
        // Where a failure takes only what is on its drive, less is lost.
        Number(b.figures.independent) - Number(a.figures.independent) ||
        a.groups.length - b.groups.length,
    )
    .filter((choice) => !beaten.has(choice.id) && !seen.has(outline(choice)) && seen.add(outline(choice)));
  const protect = worth.filter(({ figures }) => figures.tolerance > 0);
  const firsts = protect.filter(
    (choice) => protect.find(({ figures }) => figures.tolerance === choice.figures.tolerance) === choice,
  );
  const rest = protect.filter((choice) => !firsts.includes(choice));
  const listed = [...firsts, ...rest].slice(0, MOST_PROTECTED);
  const bare = worth.filter(({ figures }) => figures.tolerance === 0);
  return [...protect.filter((choice) => listed.includes(choice)), ...bare].slice(
    0,
    listed.length === 0 ? MOST_LISTED : listed.length + 1,
  );
}
