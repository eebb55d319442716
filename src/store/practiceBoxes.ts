import { liveQuery } from "dexie";
import type { Plan } from "@/core/document/plan";
import type { PracticeAct } from "@/core/simulator/practiceLog";
import type { CortijoDatabase, KeptPractice } from "./database";

/** From which all that is drawn on a practice box follows. */
const SEED = 1;

/** Sets a practice box up as a plan has its box now, in the place of one that the plan has. */
export async function keepPractice(database: CortijoDatabase, id: string, plan: Plan, now = Date.now()): Promise<void> {
  await database.practices.put({ id, plan: { ...plan, steps: [] }, seed: SEED, acts: [], since: now, ahead: 0 });
}

/** Adds what was done on it, with the drives that it knows by then. */
export async function addAct(
  database: CortijoDatabase,
  id: string,
  act: PracticeAct,
  { plan, ahead }: Pick<KeptPractice, "plan" | "ahead">,
): Promise<void> {
  await database.transaction("rw", database.practices, async () => {
    const kept = await database.practices.get(id);
    if (!kept) return;
    // Its clock may have been put ahead by what came after: it never goes back.
    const further = Math.max(kept.ahead, ahead);
    await database.practices.put({ ...kept, plan, ahead: further, acts: [...kept.acts, act] });
  });
}

/** Keeps how far its clock is ahead; it never goes back. */
export async function keepAhead(database: CortijoDatabase, id: string, ahead: number): Promise<void> {
  await database.practices
    .where("id")
    .equals(id)
    .modify((kept: KeptPractice) => void (kept.ahead = Math.max(kept.ahead, ahead)));
}

/** Puts it away; the plan stays. */
export async function removePractice(database: CortijoDatabase, id: string): Promise<void> {
  await database.practices.delete(id);
}

/** Tells of the practice box of a plan, now and whenever it changes; null where it has none. Returns how to stop. */
export function followPractice(
  database: CortijoDatabase,
  id: string,
  tell: (kept: KeptPractice | null) => void,
): () => void {
  const following = liveQuery(() => database.practices.get(id)).subscribe({
    next: (kept) => tell(kept ?? null),
    // Where the browser keeps nothing there is none.
    error: () => tell(null),
  });
  return () => following.unsubscribe();
}
