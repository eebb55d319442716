import type { Plan } from "@/core/document/plan";
import type { Problem } from "@/core/document/problem";
import { checks, checksNow } from "./checking";
import type { CortijoDatabase, KeptEntry, KeptPlan } from "./database";
import { perform, startHistory, type History } from "./history";
import { keepPlan } from "./keepPlan";
import { withFreshCalendar } from "./withFreshCalendar";

/** Deleted plans can be brought back for this long. */
export const KEPT_AFTER_DELETION_MS = 30 * 24 * 3600 * 1000;

type OpenKept = typeof import("@/core/box/openPlan").openKept;

/** Why a kept plan cannot be opened. */
export interface Damage {
  kind: "not-a-plan" | "impossible" | "newer";
  problems: Problem[];
}

/** A plan of the list; without its document where that cannot be read any more. */
export interface ListedPlan {
  id: string;
  name: string;
  changedAt: number;
  deletedAt: number;
  plan: Plan | null;
  damage: Damage | null;
}

/** A plan with its history and the revision at which it was read. */
export interface LoadedPlan {
  history: History;
  revision: number;
  /** Whether it is a copy of a sample. */
  example: boolean;
}

/** What became of reading a plan. */
export type Loading =
  | { kind: "there"; loaded: LoadedPlan }
  | { kind: "damaged"; damage: Damage }
  | { kind: "deleted" }
  | { kind: "missing" };

/** What became of writing one: somebody else has written it since, has deleted it, or the data was cleared. */
export type Saving = "saved" | "overtaken" | "deleted" | "missing";

function listed(kept: KeptPlan, openKept: OpenKept): ListedPlan {
  const read = openKept(kept.document);
  return {
    id: kept.id,
    name: typeof kept.name === "string" && kept.name !== "" ? kept.name : "A plan without a name",
    changedAt: Number(kept.changedAt) || 0,
    deletedAt: kept.deletedAt === 0 ? 0 : Number(kept.deletedAt) || 0,
    plan: read.ok ? read.plan : null,
    damage: read.ok ? null : { kind: read.kind, problems: read.problems },
  };
}

/**
 * The plans that are there, the last changed first, and those deleted in the last 30 days. Each is checked by itself:
 * one that is damaged is listed as such and harms no other.
 */
export async function listPlans(database: CortijoDatabase): Promise<{ plans: ListedPlan[]; deleted: ListedPlan[] }> {
  // Waiting for anything but the database would end the list's following it: they have been loaded by then.
  const { openKept } = checksNow() ?? (await checks());
  const kept = await database.plans.toArray();
  const all = kept.map((row) => listed(row, openKept)).sort((a, b) => b.changedAt - a.changedAt);
  return { plans: all.filter((plan) => plan.deletedAt === 0), deleted: all.filter((plan) => plan.deletedAt !== 0) };
}

/** What is kept of a plan, as it is kept, for somebody who can mend it; null when nothing is. */
export async function rawPlan(database: CortijoDatabase, id: string): Promise<string | null> {
  const kept = await database.plans.get(id);
  return kept ? `${JSON.stringify(kept.document ?? null, null, 2)}\n` : null;
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
  await database.transaction("rw", database.plans, database.entries, database.practices, async () => {
    const old = await database.plans
      .where("deletedAt")
      .between(1, now - KEPT_AFTER_DELETION_MS)
      .primaryKeys();
    await database.plans.bulkDelete(old);
    await database.practices.bulkDelete(old);
    await database.entries.where("plan").anyOf(old).delete();
  });
}

/** Keeps a copy of a plan, without its history. Returns the copy's id; null for one that is not there or damaged. */
export async function duplicatePlan(database: CortijoDatabase, id: string): Promise<string | null> {
  const { openKept } = await checks();
  const kept = await database.plans.get(id);
  const read = kept ? openKept(kept.document) : null;
  if (!read?.ok) return null;
  return keepPlan(database, { ...withFreshCalendar(read.plan), name: `${read.plan.name} (copy)`.slice(0, 120) });
}

/** Keeps several plans at once, all or none of them. */
export async function keepPlans(database: CortijoDatabase, plans: readonly Plan[]): Promise<void> {
  await database.transaction("rw", database.plans, async () => {
    for (const plan of plans) await keepPlan(database, plan);
  });
}

/** Entries of a history as they were kept; none where they are damaged, since the plan is worth more than its past. */
function entriesOf(rows: readonly KeptEntry[], position: number): History["entries"] {
  const isWhole = rows.every(
    (row) => Array.isArray(row.patches) && Array.isArray(row.inverse) && typeof row.description === "string",
  );
  if (!isWhole || !Number.isInteger(position) || position < 0 || position > rows.length) return [];
  return rows.map(({ plan: _plan, place: _place, ...entry }) => entry);
}

/** Reads a plan with its history, checked and brought up to date, or says why it cannot be opened. */
export async function loadPlan(database: CortijoDatabase, id: string): Promise<Loading> {
  const { openKept } = await checks();
  return database.transaction("r", database.plans, database.entries, async (): Promise<Loading> => {
    const kept = await database.plans.get(id);
    if (!kept) return { kind: "missing" };
    if (kept.deletedAt !== 0) return { kind: "deleted" };
    const read = openKept(kept.document);
    if (!read.ok) return { kind: "damaged", damage: { kind: read.kind, problems: read.problems } };
    const entries = entriesOf(await database.entries.where("plan").equals(id).sortBy("place"), kept.position);
    const position = entries.length === 0 ? 0 : kept.position;
    const history = { plan: read.plan, entries, position };
    return { kind: "there", loaded: { history, revision: kept.revision, example: kept.example === true } };
  });
}

/** Writes the next state of a plan if it is there and nobody else has written one since `expected`. */
export async function savePlan(
  database: CortijoDatabase,
  id: string,
  expected: number,
  before: History,
  after: History,
  now = Date.now(),
): Promise<Saving> {
  return database.transaction("rw", database.plans, database.entries, async (): Promise<Saving> => {
    const kept = await database.plans.get(id);
    if (!kept) return "missing";
    if (kept.deletedAt !== 0) return "deleted";
    if (kept.revision !== expected) return "overtaken";
    if (before.entries !== after.entries) await writeEntries(database, id, before, after);
    await database.plans.update(id, {
      document: after.plan,
      name: after.plan.name,
      position: after.position,
      revision: expected + 1,
      changedAt: now,
    });
    return "saved";
  });
}

/**
 * Writes a plan with its whole history, whatever was there: brings one back that was deleted, or keeps one anew whose
 * data was cleared.
 *
 * @returns its revision
 */
export async function putPlan(
  database: CortijoDatabase,
  id: string,
  history: History,
  now = Date.now(),
): Promise<number> {
  return database.transaction("rw", database.plans, database.entries, async () => {
    const kept = await database.plans.get(id);
    const revision = (kept?.revision ?? 0) + 1;
    await writeEntries(database, id, startHistory(history.plan), history);
    await database.plans.put({
      id,
      name: history.plan.name,
      document: history.plan,
      revision,
      position: history.position,
      createdAt: kept?.createdAt ?? now,
      changedAt: now,
      deletedAt: 0,
      ...(kept?.example ? { example: true as const } : {}),
    });
    return revision;
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
  const read = await loadPlan(database, id);
  if (read.kind !== "there") return;
  const { history, revision } = read.loaded;
  const result = perform(history, { kind: "rename-plan", name }, Date.now());
  if (result.ok) await savePlan(database, id, revision, history, result.history);
}
