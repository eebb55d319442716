import fc from "fast-check";
import { usableOfPool } from "../box/figures";
import { isFree } from "../box/members";
import { rulesOfBox } from "../box/rulesOfBox";
import { emptyPlan } from "../document/emptyPlan";
import type { BoxRules, Group, Plan, Pool, Step, StepBody } from "../document/plan";
import { wrongCount } from "../layouts/problemsOfLayout";
import { mirror } from "../layouts/mirror";
import { layoutOf, layouts } from "../layouts/registry";
import { QUESTIONS } from "../ruleBook/registry";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { Draw } from "../simulator/draw";
import { type Walk } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { testDrive } from "./arbitraries";

/** Things drawn from a seed, the same each time. */
export class Dice extends Draw {
  one<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
  some<T>(list: readonly T[], count: number): T[] {
    const left = [...list];
    return Array.from({ length: Math.min(count, left.length) }, () => left.splice(this.below(left.length), 1)[0]!);
  }
}

export const freeOf = (plan: Plan): string[] => plan.drives.filter(({ id }) => isFree(plan, id)).map(({ id }) => id);

/** A set of rules with some of them answered otherwise. */
export function anyRules(dice: Dice): Plan["box"]["rules"] {
  const overrides: Record<string, unknown> = {};
  for (const { questions } of QUESTIONS)
    for (const question of questions)
      if (dice.below(6) === 0) overrides[question.rule] = dice.one<{ value: unknown }>(question.answers).value;
  if (dice.below(2) === 0) overrides.layouts = layouts.map(({ id }) => id);
  return { set: dice.one(ruleSets).id, overrides: overrides as Partial<BoxRules> };
}

/** A box of any rules with a pool that it offers, volumes in it, and drives on the shelf, of a few sizes or of any. */
function anyBox(dice: Dice): Plan {
  const rulesChoice = anyRules(dice);
  const rules = rulesOf(rulesChoice);
  const GB = 1e9;
  const sizes = dice.below(2) === 0 ? [4000, 8000, 12_000] : [120, 150, 209, 250, 300, 400];
  const size = () => dice.one(sizes) * GB + (dice.below(3) === 0 ? dice.below(300) * 512 : 0);
  const count = 2 + dice.below(5);
  const offered = layouts.filter((layout) => rules.layouts.includes(layout.id) && !wrongCount(layout, count, rules));
  const drives = [
    ...Array.from({ length: count }, (_, i) => testDrive(`d${i + 1}`, size(), { place: { bay: i + 1 } })),
    ...Array.from({ length: 2 + dice.below(4) }, (_, i) => testDrive(`x${i + 1}`, size(), {})),
  ];
  const plan: Plan = {
    ...emptyPlan("Any"),
    box: { name: "Any", bays: count + 1 + dice.below(4), rules: rulesChoice },
    drives,
  };
  if (offered.length === 0) return plan;
  const layout = dice.one(offered);
  const ids = drives.slice(0, count).map(({ id }) => id);
  plan.pools = [
    { id: "p1", name: "P", groups: [{ id: "g1", layout: layout.id, drives: ids }], spares: [], volumes: [] },
  ];
  const usable = usableOfPool(plan, plan.pools[0]!, rules);
  const share = dice.one([0.3, 0.5, 1]);
  for (const id of ["v1", "v2"].slice(0, dice.below(3)))
    plan.pools[0]!.volumes.push({
      id,
      name: id,
      bytes: Math.floor((usable * share) / 2),
      fileSystem: dice.one(["ext4", "btrfs", "xfs", "none"]),
      usedBytes: Math.floor(usable * share * 0.2 * dice.below(3)),
    });
  return plan;
}

/** A step that makes a group of free drives, or a mirror of two; null where there are none. */
export function makingStep(plan: Plan, pool: Pool | null, dice: Dice, n: number): StepBody | null {
  const rules = rulesOfBox(plan);
  const free = freeOf(plan);
  const { id: layout, usualDrives } = dice.one([...layouts.filter(({ id }) => rules.layouts.includes(id)), mirror]);
  const drives = dice.some(free, Math.max(usualDrives, 1 + dice.below(4)));
  const fresh = { pool: `p${n + 10}`, group: `g${n + 10}` };
  const [holder, by] = dice.some(free, 2);
  if (holder && by && dice.below(4) === 0) return { kind: "mirror-drive", ...fresh, name: "New", drive: holder, by };
  if (drives.length === 0) return null;
  return pool && dice.below(2) === 0
    ? { kind: "add-group", ...fresh, pool: pool.id, layout, drives }
    : { kind: "create-group", ...fresh, name: "New", layout, drives };
}

/** A step on what a volume of a pool has. */
export function volumeStep(pool: Pool, dice: Dice): StepBody {
  const { id: volume, bytes } = dice.one(pool.volumes);
  const at = { pool: pool.id, volume };
  return dice.one<StepBody>([
    { kind: "grow-volume", ...at },
    { kind: "grow-volume", ...at, bytes: Math.floor(bytes * 1.2) },
    { kind: "shrink-volume", ...at, bytes: Math.floor(bytes * dice.one([0.5, 0.9])) },
    { kind: "grow-file-system", ...at },
  ]);
}

/** A change of a group's level, to one that it can become. */
export function levelStep(group: Group, free: readonly string[], dice: Dice): StepBody {
  const { becomes, chooses } = layoutOf(group.layout);
  return {
    kind: "change-level",
    group: group.id,
    layout: becomes.length > 0 ? dice.one(becomes).to : group.layout,
    drives: dice.some(free, dice.below(3)),
    ...(dice.below(4) === 0 ? { without: dice.some(group.drives, 1 + dice.below(2)) } : {}),
    ...(chooses === "stripe-width" ? { options: { data: 2, parity: 1 } } : {}),
  };
}

/** A step that could well be meant at a moment of a plan. */
function likelyStep(plan: Plan, dice: Dice, n: number): StepBody {
  const [rules, free] = [rulesOfBox(plan), freeOf(plan)];
  const pool = plan.pools.length > 0 ? dice.one(plan.pools) : null;
  if (!pool || free.length === 0 || dice.below(12) === 0)
    return makingStep(plan, pool, dice, n) ?? { kind: "test-drive", drive: dice.one(plan.drives).id };
  if (pool.volumes.length > 0 && dice.below(4) === 0) return volumeStep(pool, dice);
  const group = dice.one(pool.groups);
  const [drive, by] = [dice.one(group.drives), dice.one(free)];
  const waiting = Object.keys(group.reach ?? { [drive]: 0 });
  return dice.one<StepBody>([
    { kind: "widen-group", group: group.id, drives: dice.some(free, 1 + dice.below(2)) },
    { kind: "replace-drive", drive, by, how: dice.one(["attached", "pulled"]) },
    { kind: "replace-drive", drive, by, how: rules.replacing === "old-attached" ? "attached" : "pulled" },
    { kind: "claim-space", group: group.id, ...(rules.claiming === "per-drive" ? { drive: dice.one(waiting) } : {}) },
    levelStep(group, free, dice),
    { kind: "set-spare", pool: pool.id, drive: by },
    ...pool.spares.map((spare) => ({ kind: "remove-spare" as const, drive: spare })),
    { kind: "remove-drive", drive },
    { kind: "change-parity-drive", group: group.id, drive, by },
    { kind: "rebalance", group: group.id },
    { kind: "back-up", pool: pool.id, to: "elsewhere" },
    { kind: "verify", pool: pool.id },
    { kind: "update-parity", pool: pool.id },
    { kind: "wipe-drive", drive: by },
    { kind: "rebuild-from-backup", pool: pool.id, layout: dice.one(rules.layouts), drives: [...group.drives, by] },
  ]);
}

/**
 * A plan of any box with up to so many likely steps, and its walk; at least half of the steps are carried out: where
 * one would bring them below that, another is drawn.
 */
export function likelyWalk(seed: number, steps: number): Walk {
  const dice = new Dice(seed);
  let walk = walkPlan(anyBox(dice));
  let done = 0;
  for (let n = 1; n <= steps; n += 1) {
    const at = walk.moments.at(-1)!.state.plan;
    // Half of those that cannot be carried out stay in the plan.
    for (let tries = 1; ; tries += 1) {
      const last = tries > 8;
      const body: StepBody = last ? { kind: "test-drive", drive: dice.one(at.drives).id } : likelyStep(at, dice, n);
      const together = dice.below(8) === 0 ? { together: true } : {};
      const step = { ...body, ...together, id: `s${n}` } as Step;
      const next = walkPlan({ ...walk.plan, steps: [...walk.plan.steps, step] }, "TB", walk);
      const isDone = next.moments.at(-1)!.walked!.done;
      if (!isDone && (done < n / 2 || dice.below(2) === 0) && !last) continue;
      walk = next;
      if (isDone) done += 1;
      break;
    }
  }
  return walk;
}

/** Seeds and lengths of such plans. */
export const likelySeed = fc.tuple(fc.integer({ min: 0, max: 2 ** 31 - 1 }), fc.integer({ min: 1, max: 6 }));
