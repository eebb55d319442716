import type { BoxRules, LayoutId } from "../document/plan";
import type { LevelChange } from "./levelPath";
import { layoutOf } from "./registry";
import { counted } from "../words/counted";

/** What stands against a change of level: nothing, that it goes only by way of others, or that there is no path. */
export type LevelVerdict =
  | { kind: "possible" }
  | { kind: "refused"; reason: string }
  | { kind: "by-way-of"; levels: LayoutId[] }
  | { kind: "no-path" };

/** The levels from one to another, rung by rung, without the one it begins at; null where no ladder leads there. */
function rungsBetween(from: LayoutId, to: LayoutId): LayoutId[] | null {
  const levels: LayoutId[] = [];
  for (let at = from; at !== to;) {
    const next = layoutOf(at).becomes.find((path) => path.rung)?.to;
    if (next === undefined) return null;
    levels.push(next);
    at = next;
  }
  return levels;
}

/**
 * Whether a box makes a change of level, by its rules and by what the kernel's RAID driver was measured to do.
 *
 * @example levelVerdict({ from: "raid1", to: "raid6", drives: 2, joining: 2, leaving: 0, equal: true }, { levelChanges: "one-at-a-time", … })
 * // { kind: "by-way-of", levels: ["raid5", "raid6"] }
 */
export function levelVerdict(change: LevelChange, rules: Pick<BoxRules, "levelChanges" | "arrayFormat">): LevelVerdict {
  if (rules.levelChanges === "none") return { kind: "no-path" };
  const { becomes } = layoutOf(change.from);
  const direct = becomes.find(
    (path) => path.to === change.to && (!path.linuxOnly || rules.arrayFormat === "linux-raid"),
  );
  if (direct) return verdictOf(direct.refuses(change));
  const levels = rungsBetween(change.from, change.to);
  if (levels === null || levels.length < 2) return { kind: "no-path" };
  // Whatever is to come of it, the first rung has to be taken by the drives that are there.
  const first = becomes.find((path) => path.rung)?.refuses({ ...change, joining: Math.max(1, change.joining) });
  if (first && change.leaving === 0) return { kind: "refused", reason: first };
  if (rules.levelChanges === "one-at-a-time") return { kind: "by-way-of", levels };
  const enough = change.joining >= levels.length && change.leaving === 0;
  return verdictOf(enough ? null : `It needs ${counted(levels.length, "drive")} more.`);
}

const verdictOf = (reason: string | null): LevelVerdict =>
  reason === null ? { kind: "possible" } : { kind: "refused", reason };
