import type { RuleName } from "../document/plan";
import * as howItGrows from "./howItGrows";
import type { AnyRuleEntry, RuleEntry } from "./ruleEntry";
import * as whatItKeeps from "./whatItKeeps";
import * as whatItLetsIn from "./whatItLetsIn";

/** The rules that are asked apart: which layouts there are, and of how many drives each is made. */
export type AskedApart = "layouts" | "minimumDrives";

/** Every other rule by its name. A new rule is its place in the plan schema, an entry, and its answer in each set. */
const entries: { readonly [K in Exclude<RuleName, AskedApart>]: RuleEntry<K> } = {
  ...whatItKeeps,
  ...whatItLetsIn,
  ...howItGrows,
};

const { widening, levelChanges, replacing, claiming, growing, shrinkVolumes } = entries;

/** What is asked about a box, under plain headings, in this order. */
export const QUESTIONS: readonly { heading: string; questions: readonly AnyRuleEntry[] }[] = [
  {
    heading: "What it keeps, and what it shows",
    questions: [
      entries.systemReserveBytes,
      entries.replacementMarginShare,
      entries.poolReserveShare,
      entries.poolReserveMaxBytes,
      entries.partitioning,
      entries.arrayFormat,
      entries.sizesShown,
      entries.system,
    ],
  },
  {
    heading: "What it lets into one group",
    questions: [
      entries.mostDrives,
      entries.mixedMedia,
      entries.mixedBuses,
      entries.mixedSectors,
      entries.usbMembers,
      entries.joining,
      entries.hotSpares,
    ],
  },
  {
    heading: "How it grows and repairs",
    questions: [
      ...[widening, levelChanges, replacing, claiming, growing, shrinkVolumes],
      entries.swapping,
      entries.swapMinutes,
      entries.parityWrites,
      entries.firstFill,
      entries.rebuilding,
      entries.preference,
      entries.parityRateLimit,
    ],
  },
];

/** The entry of a rule, or undefined for one that is asked apart. */
export function entryOf(rule: RuleName): AnyRuleEntry | undefined {
  return QUESTIONS.flatMap(({ questions }) => questions).find((each) => each.rule === rule);
}
