import type { Plan } from "./plan";

/** How many characters the history and the log of a plan have as JSON. */
export const recordCharacters = ({ history = [], log = [] }: Pick<Plan, "history" | "log">): number =>
  JSON.stringify(history).length + JSON.stringify(log).length;
