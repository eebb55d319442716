import type { HistoryEntry } from "@/store/history";
import type { Plan } from "@/core/document/plan";
import { capital } from "@/core/words/capital";
import { say } from "../kit/say";
import { landFocus, resultOf } from "./landFocus";

/** By how much usable space has changed, as the read-out writes it; null where it has not, or there is none. */
const changeShown = (): string | null => document.querySelector("[data-change]")?.textContent ?? null;

/**
 * After an act: says it in its own words, and gives the focus to its result where it is on nothing.
 *
 * @param entry what was done last; undefined where another place was opened
 * @param isTold whether a notice tells of it already
 * @returns ends looking after the focus
 */
export function afterAct(entry: HistoryEntry | undefined, plan: Plan, isTold: boolean): () => void {
  if (entry && !isTold) {
    const change = changeShown();
    say(`${capital(entry.description)}.${change ? ` Usable: ${change}.` : ""}`, 1);
  }
  return landFocus(() => resultOf(entry?.command, plan));
}
