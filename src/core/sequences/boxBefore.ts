import type { BoxState } from "../box/state";
import type { Drive, Plan } from "../document/plan";

/** The box before the changes, with what comes into it on its shelf. */
export function boxBefore(plan: Plan, news: readonly Drive[]): BoxState {
  const there = new Set(plan.drives.map((drive) => drive.id));
  const drives = [...plan.drives, ...news.filter((drive) => !there.has(drive.id))];
  return { plan: { ...plan, drives }, tested: new Set(), backedUp: new Map() };
}
