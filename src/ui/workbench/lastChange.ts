import type { Bytes } from "@/core/bytes/bytes";
import type { Plan } from "@/core/document/plan";
import { storageTotal } from "@/core/prediction/storageTotal";
import { predict } from "@/core/prediction/predict";
import type { Walk } from "@/core/walk/moment";
import { planBefore, type History } from "@/store/history";

/** What changed the plan last, and by how much usable space it differs. */
export interface LastChange {
  description: string;
  bytes: Bytes;
  /** Against which moment, where not against the plan before the last change. */
  since: string | null;
}

const usableOf = (plan: Plan): Bytes => storageTotal(plan, predict(plan).pools);

/**
 * At a later moment, how much more there is than now; now, how much more than before the last change; null where
 * nothing was changed yet.
 */
export function lastChangeOf(history: History, walked: Walk, at: number): LastChange | null {
  if (at > 0) {
    const usableAt = (index: number) => walked.moments[index]?.capacities.pool ?? 0;
    return { description: "now", bytes: usableAt(at) - usableAt(0), since: "now" };
  }
  const before = planBefore(history);
  const entry = history.entries[history.position - 1];
  if (!before || !entry) return null;
  return { description: entry.description, bytes: usableOf(history.plan) - usableOf(before), since: null };
}
