import { withParityNamed } from "@/core/box/parityNamed";
import { ofThisEdition } from "@/core/document/edition";
import type { CortijoDatabase, KeptEntry, KeptPlan } from "./database";
import { perform, type History } from "./history";
import { withFreshCalendar } from "./withFreshCalendar";
import { keepPlan } from "./keepPlan";

/** Deleted plans can be brought back for this long. */
export const KEPT_AFTER_DELETION_MS = 30 * 24 * 3600 * 1000;

/** A plan with its history and the revision at which it was read. */
export interface LoadedPlan {
  history: History;
  revision: number;
}

/**
 * The plans that are there, the last changed first, and those deleted in the last 30 days; older ones are forgotten.
 */
export async function listPlans(database: CortijoDatabase): Promise<{ plans: KeptPlan[]; deleted: KeptPlan[] }> {
  const all = await database.plans.orderBy("changedAt").reverse().toArray();
  return { plans: all.filter((plan) => plan.deletedAt === 0), deleted: all.filter((plan) => plan.deletedAt !== 0) };
}

/** Deletes a plan so that it can be brought back. */
export async function deletePlan(database: CortijoDatabase, id: string, now = Date.now()): Promise<void> {
  await database.plans.update(id, { deletedAt: now });
}

/** Brings a deleted plan back. */
export async function restorePlan(database: CortijoDatabase, id: string): Promise<void> {
  await database.plans.update(id, { deletedAt: 0 });
}

/** Forgets for good the plans that were deleted more than 30 days ago. */
export async function forgetOldDeletions(database: CortijoDatabase, now = Date.now()): Promise<void> {
  await database.transaction("rw", database.plans, database.entries, async () => {
    const old = await database.plans
      .where("deletedAt")
      .between(1, now - KEPT_AFTER_DELETION_MS)
      .primaryKeys();
    await database.plans.bulkDelete(old);
    await database.entries.where("plan").anyOf(old).delete();
  });
}

/** Keeps a copy of a plan, without its history. Returns the copy's id. */
export async function duplicatePlan(database: CortijoDatabase, id: string): Promise<string | null> {
  const kept = await database.plans.get(id);
  if (!kept) return null;
  return keepPlan(database, { ...withFreshCalendar(kept.document), name: `${kept.name} (copy)`.slice(0, 120) });
}

/** Reads a plan with its history, or null when it is not there. */
export async function loadPlan(database: CortijoDatabase, id: string): Promise<LoadedPlan | null> {
  return database.transaction("r", database.plans, database.entries, async () => {
    const kept = await database.plans.get(id);
    if (!kept || kept.deletedAt !== 0) return null;
    const rows = await database.entries.where("plan").equals(id).sortBy("place");
    const entries = rows.map(({ plan: _plan, place: _place, ...entry }) => entry);
    // Plans that were kept by an earlier program are brought up to date.
    const plan = withParityNamed(ofThisEdition(kept.document));
    return { history: { plan, entries, position: kept.position }, revision: kept.revision };
  });
}

/**
 * Writes the next state of a plan if nobody else has written one since `expected`.
 *
 * @returns whether it was written; when not, the plan must be loaded again
 */
export async function savePlan(
  database: CortijoDatabase,
  id: string,
  expected: number,
  before: History,
  after: History,
  now = Date.now(),
): Promise<boolean> {
  return database.transaction("rw", database.plans, database.entries, async () => {
    const kept = await database.plans.get(id);
    if (!kept || kept.revision !== expected) return false;
    if (before.entries !== after.entries) await writeEntries(database, id, before, after);
    await database.plans.update(id, {
      document: after.plan,
      name: after.plan.name,
      position: after.position,
      revision: expected + 1,
      changedAt: now,
    });
    return true;
  });
}

/** Writes only what differs: usually one new entry at the end. */
async function writeEntries(database: CortijoDatabase, id: string, before: History, after: History): Promise<void> {
  let same = 0;
  while (same < before.entries.length && before.entries[same] === after.entries[same]) same += 1;
  await database.entries.where("[plan+place]").between([id, same], [id, Infinity]).delete();
  const rows = after.entries.slice(same).map((entry, i): KeptEntry => ({ plan: id, place: same + i, ...entry }));
  await database.entries.bulkPut(rows);
}

/** Renames a plan from the list, as a command like any other, so that it can be undone in the plan. */
export async function renamePlan(database: CortijoDatabase, id: string, name: string): Promise<void> {
  const loaded = await loadPlan(database, id);
  if (!loaded) return;
  const result = perform(loaded.history, { kind: "rename-plan", name }, Date.now());
  if (result.ok) await savePlan(database, id, loaded.revision, loaded.history, result.history);
}
