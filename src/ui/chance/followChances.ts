import type { ChancesSoFar } from "@/core/chance/planChances";
import type { Plan } from "@/core/document/plan";
import { today } from "../today";

/** What is known of the chances of a plan so far. */
export interface Followed {
  told: ChancesSoFar | null;
  /** How far the ranges are, 0 to 1; null where nothing is under way. */
  share: number | null;
  trouble: string | null;
}

interface Entry {
  state: Followed;
  listeners: Set<(state: Followed) => void>;
  stop: () => void;
}

const NOTHING: Followed = { told: null, share: 0, trouble: null };

/** What is worked out, or has been, by plan and moments: several places of a page ask for the same. */
const entries = new WeakMap<Plan, Map<string, Entry>>();

/** For so long the plan must stand still before anything is worked out, in milliseconds. */
const REST = 200;

function begin(plan: Plan, moments: string, onEnd: () => void): Entry {
  let cancel: (() => void) | null = null;
  let over = false;
  const entry: Entry = { state: NOTHING, listeners: new Set(), stop: () => undefined };
  const set = (state: Followed) => {
    if (over) return;
    entry.state = state;
    for (const listener of entry.listeners) listener(state);
  };
  const run = async () => {
    const { startChances } = await import("@/workers/startChances");
    if (over) return;
    const at = moments === "" ? [] : moments.split(",").map(Number);
    const job = startChances(plan, at, today(), (told) =>
      set(
        typeof told === "number"
          ? { ...entry.state, share: told }
          : { told, share: told.ranged ? null : told.share, trouble: null },
      ),
    );
    ({ cancel } = job);
    await job.result;
  };
  const timer = setTimeout(() => {
    run().catch((error: unknown) => {
      const trouble = error instanceof Error ? error.message : "The chances could not be worked out.";
      set({ ...entry.state, share: null, trouble });
      onEnd();
    });
  }, REST);
  entry.stop = () => {
    over = true;
    clearTimeout(timer);
    cancel?.();
    onEnd();
  };
  return entry;
}

/**
 * Follows the chances of a plan, which are worked out in a worker as long as anybody follows them, and kept once they
 * are known.
 *
 * @param moments at which the box is at rest, with commas between
 * @returns ends it
 */
export function followChances(plan: Plan, moments: string, listener: (state: Followed) => void): () => void {
  const ofPlan = entries.get(plan) ?? new Map<string, Entry>();
  entries.set(plan, ofPlan);
  const entry = ofPlan.get(moments) ?? begin(plan, moments, () => ofPlan.delete(moments));
  ofPlan.set(moments, entry);
  entry.listeners.add(listener);
  if (entry.state.told) listener(entry.state);
  return () => {
    entry.listeners.delete(listener);
    if (entry.listeners.size === 0 && !entry.state.told?.ranged) entry.stop();
  };
}
