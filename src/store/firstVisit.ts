import { clinic } from "@/core/document/samples/clinic";
import type { CortijoDatabase } from "./database";
import { keepPlan } from "./keepPlan";

const DEMO_SHOWN = "demo-shown";

/** On the first visit, keeps the demo plan and returns its id; later null. */
export async function keepDemoOnFirstVisit(database: CortijoDatabase): Promise<string | null> {
  return database.transaction("rw", database.plans, database.settings, async () => {
    if (await database.settings.get(DEMO_SHOWN)) return null;
    await database.settings.put({ name: DEMO_SHOWN, value: true });
    return (await database.plans.count()) === 0 ? keepPlan(database, clinic, { example: true }) : null;
  });
}
