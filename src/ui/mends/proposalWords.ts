import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Drive } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { HelpKind } from "@/core/mends/whatHelps";
import { lengthWords } from "@/core/time/hoursWords";
import { withArticle } from "@/core/words/inSentence";
import { moneyWords } from "@/core/words/money";

/** A change of a plan, as far as it is told. */
interface Proposed {
  kind: HelpKind;
  buys: readonly Drive[];
  /** Where its step goes instead, counted from 0. */
  to?: number;
}

const bought = ([drive]: readonly Drive[], unit: UnitFamily): string =>
  drive ? `: ${withArticle(`${shortSize(drive, unit)} drive`)}` : "";

/** What is done by each kind of change, in words; `n` is the number of its step. */
const DOES: Readonly<Record<HelpKind, (of: Proposed, n: number, unit: UnitFamily) => string>> = {
  attached: (_, n) => `Copy the drive while the old one is in its bay, in step ${n}`,
  backup: (_, n) => `Back up before step ${n}`,
  verify: (_, n) => `Check (scrub) the pool before step ${n}`,
  spare: ({ buys }, _, unit) => `A hot spare from the beginning${bought(buys, unit)}`,
  order: ({ to = 0 }, n) => `Do step ${n} ${to < n - 1 ? "before" : "after"} step ${to + 1}`,
  ups: () => "A battery supply (UPS) for the box",
  "backup-elsewhere": () => "A weekly backup at another place, that keeps versions and is tested",
  "second-parity": ({ buys }, _, unit) => `A layout that survives one more failure${bought(buys, unit)}`,
  scrub: () => "Check (scrub) all that is stored once a month",
  alerts: () => "Let the box tell you when a drive fails",
  shelf: ({ buys }, _, unit) => `A drive that fits, ready on the shelf${bought(buys, unit)}`,
};

/**
 * A change of a plan in words.
 *
 * @param step the number of its step in the plan
 * @example proposalWords(mend, 3, "TB") // "Check (scrub) the pool before step 3"
 */
export const proposalWords = (of: Proposed, step: number, unit: UnitFamily): string => DOES[of.kind](of, step, unit);

/** What a change costs: time, and money where it is known. */
export function costWords(
  { kind, hours, money, buys }: Proposed & { hours: number; money: number | null },
  currency: string | undefined,
): string {
  const time =
    Math.abs(hours) < 0.05
      ? "no time"
      : hours > 0
        ? `${lengthWords(hours).replace("about ", "")} more`
        : `${lengthWords(-hours).replace("about ", "")} less`;
  const price =
    kind === "ups"
      ? "and the price of a battery supply"
      : kind === "backup-elsewhere"
        ? "and the place that keeps it"
        : buys.length === 0
          ? ""
          : money === null
            ? "and a drive, of which the plan has no price"
            : `and ${moneyWords(money, currency)}`;
  return `Costs ${time}${price ? ` ${price}` : ""}.`;
}
