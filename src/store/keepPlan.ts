import type { Plan } from "@/core/document/plan";
import type { CortijoDatabase } from "./database";
import { newId } from "./newId";

/** How a plan is kept: `example` for a copy of a sample; `now` in milliseconds since 1970. */
interface Keeping {
  example?: boolean;
  now?: number;
}

/** Keeps a new plan. Returns its id. */
export async function keepPlan(
  database: CortijoDatabase,
  document: Plan,
  { example = false, now = Date.now() }: Keeping = {},
): Promise<string> {
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
    ...(example ? { example } : {}),
  });
  return id;
}
