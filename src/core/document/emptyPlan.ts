import { EDITION } from "./edition";
import type { Plan } from "./plan";

/** A plan with an empty box of four bays, to start from. */
export function emptyPlan(name: string): Plan {
  return {
    format: "cortijo-plan",
    version: 1,
    edition: EDITION,
    name,
    box: { name: "My box", bays: 4, rules: { set: "classic-raid" } },
    drives: [],
    pools: [],
    steps: [],
  };
}
