import type { BoxRules, RuleSetId } from "../document/plan";

/** A ready-made set: its name and its settings; what it is told by stands in `aboutSets`. */
export interface RuleSet {
  id: RuleSetId;
  name: string;
  rules: BoxRules;
}
