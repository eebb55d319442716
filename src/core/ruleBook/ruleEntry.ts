import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, Plan, Pool, RuleName } from "../document/plan";
import { oneOrMany } from "../words/counted";

/** What a rule's consequence is told of: a plan, and its first group, whose pool and drives stand for the rest. */
export interface RuleSite {
  plan: Plan;
  rules: BoxRules;
  family: UnitFamily;
  pool: Pool;
  group: Group;
  members: Drive[];
  /** The numbers of the free bays. */
  free: number[];
}

/** How a number is typed: in a unit, of which one is so much in the rule's own terms; from the least to the most. */
export interface TypedAnswer {
  unit: string;
  asValue: number;
  /** In the unit; 0 where nothing is said. */
  least?: number;
  most: number;
  /** Whether the rule is a whole number in its own terms. */
  whole?: true;
}

/** A plain answer to a rule. */
export interface RuleAnswer<K extends RuleName = RuleName> {
  value: BoxRules[K];
  label: string;
  /** Other rules that it answers with it. */
  also?: Partial<BoxRules>;
}

/** A rule of a box: what is asked, the plain answers, what it acts on, and what it means for the present plan. */
export interface RuleEntry<K extends RuleName = RuleName> {
  rule: K;
  question: string;
  /** What it is good for, or when it matters. */
  about: string;
  answers: readonly RuleAnswer<K>[];
  /** What reads it: the prediction of a moment, the steps of a plan, or only what is said beside a size. */
  actsOn: "prediction" | "steps" | "words";
  /** Where any number can be typed beside the answers. */
  typed?: TypedAnswer;
  /** What it means for the plan as it is, in a sentence; null where it means nothing for it yet. */
  consequence: (site: RuleSite) => string | null;
}

/** An entry of any rule: those who run over all of them need not know which. */
export type AnyRuleEntry = { [K in RuleName]: RuleEntry<K> }[RuleName];

/**
 * An entry with its answers, each as value, label, and what it answers besides.
 *
 * @param typed for a rule that is a number, of which any can be typed
 */
export function entry<K extends RuleName>(
  rule: K,
  actsOn: RuleEntry<K>["actsOn"],
  question: string,
  about: string,
  answers: readonly (readonly [BoxRules[K], string, Partial<BoxRules>?])[],
  consequence: RuleEntry<K>["consequence"] = () => null,
  typed?: TypedAnswer,
): RuleEntry<K> {
  const labelled = answers.map(([value, label, also]) => ({ value, label, ...(also ? { also } : {}) }));
  return { rule, actsOn, question, about, answers: labelled, consequence, ...(typed ? { typed } : {}) };
}

/** The free bays in words: "bay 5 is free". */
export function freeWords({ free }: Pick<RuleSite, "free">): string {
  if (free.length === 0) return "no bay is free";
  return oneOrMany(free.length, `bay ${free[0]} is free`, "bays are free");
}
