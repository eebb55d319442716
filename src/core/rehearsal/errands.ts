import { conditionOf } from "../box/condition";
import { rulesOfBox } from "../box/rulesOfBox";
import type { UnitFamily } from "../bytes/formatBytes";
import { applyCommand } from "../commands/applyCommand";
import type { Drive, Plan, Step } from "../document/plan";
import { poolsToRescue, rescueOf, settingOf } from "../rescue/rescueOf";

/** Something that an owner does when a drive is gone, before the plan goes on. */
export type Errand =
  | { does: Step }
  /** Hours in which nothing is done at the box: a delivery, or a copy of what is in one place only. */
  | { waits: number; copies?: string }
  | { brings: Drive };

/** What advice is worked out with. */
export interface Adviser {
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
}

/** What is advised for one pool, and the plan with what is bought for it; null where there is nothing to do. */
function courseFor(plan: Plan, pool: string, { family, day }: Adviser): { errands: Errand[]; then: Plan } | null {
  const setting = settingOf(plan, pool, family, day);
  const planned = setting && rescueOf(setting);
  const result = planned?.command && applyCommand(plan, planned.command);
  if (!planned || !result?.ok) return null;
  const here = new Set(plan.drives.map(({ id }) => id));
  const errands: Errand[] = result.plan.drives.flatMap((drive) => (here.has(drive.id) ? [] : [{ brings: drive }]));
  const before = new Set(plan.steps.map(({ id }) => id));
  const steps = result.plan.steps.filter(({ id }) => !before.has(id));
  for (const { what, step, hours } of planned.rescue.acts) {
    const does = step && steps.shift();
    if (does) errands.push({ does });
    else if (hours) errands.push({ waits: hours.expected, ...(what === "copy" ? { copies: pool } : {}) });
  }
  // Its steps stay in the plan, so that the next pool is not given the same drives.
  return { errands, then: result.plan };
}

/** Of each box what is advised, worked out once. */
const advised = new WeakMap<Plan, readonly Errand[]>();

/**
 * What the course of a rescue has its owner do at a box as it is, for all its pools: the steps, the drives to buy, and
 * the hours between.
 *
 * @param plan the box as it is, without steps
 * @example adviceFor(planWithD2Failed, { family: "TB", day: null }) // [{ brings: … }, { waits: 48 }, { does: … }, …]
 */
export function adviceFor(plan: Plan, adviser: Adviser): readonly Errand[] {
  const old = advised.get(plan);
  if (old) return old;
  const errands: Errand[] = [];
  let now = plan;
  for (const { id } of poolsToRescue(plan)) {
    const course = courseFor(now, id, adviser);
    if (!course) continue;
    errands.push(...course.errands);
    now = course.then;
  }
  advised.set(plan, errands);
  return errands;
}

const known = new WeakMap<Plan, { some: boolean; all: boolean }>();

/**
 * Whether of a box as it is something cannot be read for good, as predicted, and whether that is all of some pool.
 *
 * @example lostOf(planOfAStripeWithoutD2) // { some: true, all: true }
 */
export function lostOf(plan: Plan): { some: boolean; all: boolean } {
  const old = known.get(plan);
  if (old) return old;
  const rules = rulesOfBox(plan);
  const states = plan.pools.map((pool) => conditionOf(plan, pool, rules).state);
  const lost = { some: states.includes("lost") || states.includes("partly-lost"), all: states.includes("lost") };
  known.set(plan, lost);
  return lost;
}
