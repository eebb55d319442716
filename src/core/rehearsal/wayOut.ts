import type { Drive, Plan, Step } from "../document/plan";
import { freeIds } from "../records/freeId";
import type { Stage } from "./stage";

/**
 * What was played since the first mishap, as a plan of its own: it begins with the box as it was then, and has the
 * steps that were done to their end. What was bought on the way is to be bought.
 *
 * @returns null where nothing has happened, or nothing was done about it
 * @example planOfWayOut(stage)?.steps.map(({ kind }) => kind) // ["rebuild", "verify"]
 */
export function planOfWayOut({ wayOut, play, plan, practice }: Stage, name: string): Plan | null {
  const done = wayOut?.steps.filter(({ id }) => practice.done.includes(id)) ?? [];
  if (!wayOut || done.length === 0) return null;
  const { rehearsals: _rehearsals, ...from } = wayOut.from;
  const here = new Set(from.drives.map(({ id }) => id));
  const bought = plan.drives
    .filter(({ id }) => !here.has(id))
    .map(({ state: _state, ...drive }): Drive => ({ ...drive, toBuy: true, place: { shelf: true } }));
  const toBuy = new Set(play.asked.filter((drive) => drive.toBuy).map(({ id }) => id));
  const drives = from.drives.map((drive): Drive =>
    toBuy.has(drive.id) && "shelf" in drive.place ? { ...drive, toBuy: true } : drive,
  );
  const next = freeIds("s", []);
  const steps = done.map((step): Step => ({ ...step, id: next() }));
  return { ...from, name, drives: [...drives, ...bought], steps };
}
