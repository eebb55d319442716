import { counted, oneOrMany } from "../words/counted";
import { survivesWords } from "../words/survives";
import type { Condition } from "./condition";

/**
 * The state of a pool in a line, without a stop at its end.
 *
 * @param tolerance how many failed drives it survives when it is whole
 * @example conditionWords({ state: "degraded", redundancyLeft: 0, missing: ["d2"], … }, 1)
 * // "Nothing is lost, but 1 drive is gone; if one more fails, data is lost"
 */
export function conditionWords({ state, redundancyLeft, missing, unreadable }: Condition, tolerance: number): string {
  const gone = `${counted(missing.length, "drive")} ${missing.length === 1 ? "is" : "are"} gone`;
  const further =
    redundancyLeft <= 0
      ? "if one more fails, data is lost"
      : `survives the loss of any ${oneOrMany(redundancyLeft, "one more", "more")}`;
  switch (state) {
    case "whole":
      return survivesWords(tolerance);
    case "degraded":
      return `Nothing is lost, but ${gone}; ${further}`;
    case "rebuilding":
      return `Nothing is lost; ${gone}, and another is being filled in its place; meanwhile ${further}`;
    case "partly-lost":
      return `What was on ${counted(unreadable.length, "drive")} is lost; all others can be read`;
    case "lost":
      return `Nothing can be read: ${gone}. Only a backup brings it back`;
  }
}
