import type { Plan } from "@/core/document/plan";
import type { CortijoDatabase } from "./database";
import { newId } from "./newId";

/** Keeps a new plan. Returns its id. */
export async function keepPlan(database: CortijoDatabase, document: Plan, now = Date.now()): Promise<string> {
  const id = newId();
  await database.plans.add({
    id,
    name: document.name,
    document,
    revision: 0,
    position: 0,
    createdAt: now,
    changedAt: now,
    deletedAt: 0,
  });
  return id;
}
