import { systemFate } from "@/core/box/systemFate";
import type { Plan } from "@/core/document/plan";
import type { Condition } from "@/core/failures/condition";
import { rulesOf } from "@/core/rules/ruleSets";
import { oneOrMany, plural } from "@/core/words/counted";
import { placesOf } from "./words";

/** "one drive has failed", "2 drives are missing": how some drives are gone, or would be. */
function goneCount(plan: Plan, ids: readonly string[]): string {
  const states = new Set(plan.drives.filter(({ id }) => ids.includes(id)).map(({ state }) => state));
  const one = ids.length === 1;
  const [only] = states;
  if (states.size > 1) return `${ids.length} drives are gone`;
  if (only === "failed") return one ? "one drive has failed" : `${ids.length} drives have failed`;
  return one ? "one drive is missing" : `${ids.length} drives are missing`;
}

/** What is said of a pool: in a heading, and in a sentence or two. */
export interface StateWords {
  heading: string;
  then: string;
  tone: "whole" | "degraded" | "lost";
}

/** Which files can be read, and what a further failure would do. */
function degradedWords(plan: Plan, { state, missing, unreadable, redundancyLeft }: Condition): string {
  const where = placesOf(plan, missing);
  const read =
    unreadable.length > 0
      ? `The files on ${placesOf(plan, unreadable)} cannot be read until they are restored; all others can.`
      : `All data can be read without ${where}.`;
  const until =
    state === "rebuilding"
      ? `Another drive is being filled in the place of ${where}. Until that has ended, `
      : "Until the replacement is rebuilt, ";
  const further =
    redundancyLeft === 0
      ? "one more failed drive would lose data."
      : `the loss of any ${oneOrMany(redundancyLeft, "one more drive", "more drives")} is survived.`;
  return state === "rebuilding"
    ? `${until}${further}`
    : `Replace ${plural(missing.length, "it", "them")} now. ${read} ${until}${further}`;
}

/** What state a pool is in by the drives that have failed or are missing, in fact or in a what-if. */
export function stateWords(plan: Plan, condition: Condition): StateWords {
  const { state, missing, unreadable } = condition;
  switch (state) {
    case "whole":
      return { heading: "This pool is not affected", then: "None of the failed drives belongs to it.", tone: "whole" };
    case "degraded":
    case "rebuilding":
      return {
        heading: `Nothing is lost; ${goneCount(plan, missing)}`,
        then: degradedWords(plan, condition),
        tone: "degraded",
      };
    case "partly-lost":
      return {
        heading: "Some data is lost",
        then:
          `What was on ${placesOf(plan, unreadable)} is lost, and only a backup brings it back. Every drive that ` +
          "still works keeps its own file system and can be read.",
        tone: "lost",
      };
    case "lost":
      // In fact one of them may only be loose; a what-if takes them as dead.
      if (plan.drives.every((drive) => drive.state !== undefined || !missing.includes(drive.id)))
        return {
          heading: "Nothing here can be read",
          then:
            `Only one of ${placesOf(plan, missing)}, or a backup, brings it back. Do not create or format ` +
            "anything.",
          tone: "lost",
        };
      return {
        heading: "The pool is lost",
        then: `Without ${placesOf(plan, missing)}, everything in this pool is lost. Only a backup brings it back.`,
        tone: "lost",
      };
  }
}

/** What becomes of the box's own system in a what-if; null where it runs on. */
export function systemWords(plan: Plan, failed: ReadonlySet<string>): string | null {
  switch (systemFate(plan, failed, rulesOf(plan.box.rules))) {
    case "gone":
      return "The box's system is gone with it: it does not start until it is set up again.";
    case "one-copy":
      return "The box's system is left on a single drive.";
    case "runs":
    case "unknown":
      return null;
  }
}
