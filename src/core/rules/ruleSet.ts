import type { BoxRules, RuleSetId } from "../document/plan";

/** A ready-made set: its name, a short description, and its settings. */
export interface RuleSet {
  id: RuleSetId;
  name: string;
  description: string;
  rules: BoxRules;
}
