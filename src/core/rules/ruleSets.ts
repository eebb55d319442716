import type { BoxRules, RulesChoice } from "../document/plan";
import type { RuleSet } from "./ruleSet";
import { chunkCopies } from "./sets/chunkCopies";
import { classicRaid } from "./sets/classicRaid";
import { desktopMirror } from "./sets/desktopMirror";
import { fixedGroup } from "./sets/fixedGroup";
import { hybridBox } from "./sets/hybridBox";
import { linuxHost } from "./sets/linuxHost";
import { parityDriveBox } from "./sets/parityDriveBox";
import { scheduledParity } from "./sets/scheduledParity";

/** The ready-made sets, in the order in which menus list them. */
export const ruleSets: readonly RuleSet[] = [
  classicRaid,
  hybridBox,
  linuxHost,
  fixedGroup,
  parityDriveBox,
  scheduledParity,
  chunkCopies,
  desktopMirror,
];

/**
 * The set of a choice.
 *
 * @throws RangeError for a name that is no set, which the plan schema rules out
 */
export function ruleSetOf(choice: Pick<RulesChoice, "set">): RuleSet {
  const set = ruleSets.find((each) => each.id === choice.set);
  if (!set) throw new RangeError(`No set of rules is called ${choice.set}.`);
  return set;
}

/**
 * The rules that a plan's choice comes to: the set's, with what was overridden.
 *
 * @example rulesOf({ set: "classic-raid", overrides: { systemReserveBytes: 0 } }).arrayFormat // "plain"
 */
export function rulesOf(choice: RulesChoice): BoxRules {
  return { ...ruleSetOf(choice).rules, ...choice.overrides };
}
