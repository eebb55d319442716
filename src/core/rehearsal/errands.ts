import { conditionOf } from "../box/condition";
import { rulesOfBox } from "../box/rulesOfBox";
import type { UnitFamily } from "../bytes/formatBytes";
import { applyCommand } from "../commands/applyCommand";
import type { Drive, Plan, Step } from "../document/plan";
import type { Rescue, RescueAct } from "../rescue/rescue";
import { poolsToRescue, rescueOf, settingOf } from "../rescue/rescueOf";

/** Something that an owner does when a drive is gone, before the plan goes on. */
export type Errand =
  | { does: Step }
  /** Hours in which nothing is done at the box: a delivery, or a copy of what is in one place only. */
  | { waits: number }
  /** Such a copy of a pool is there, as it was so many hours ago. */
  | { copied: string; hours: number }
  | { brings: Drive };

/** What advice is worked out with. */
export interface Adviser {
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
}

/** What to do now at a box: for each pool that asks for it, and what its owner does, one thing after the other. */
export interface Advice {
  rescues: readonly Rescue[];
  errands: readonly Errand[];
}

/** What an act of a rescue has its owner do; `does` is its step, where it has one. */
function errandsOfAct({ what, hours }: RescueAct, pool: string, does: Step | undefined): Errand[] {
  if (does) return [{ does }];
  if (!hours) return [];
  const { expected } = hours;
  return [{ waits: expected }, ...(what === "copy" ? [{ copied: pool, hours: expected }] : [])];
}

/** What is advised for one pool, and the plan with that and what is bought for it; null for one that is not there. */
function courseFor(plan: Plan, pool: string, { family, day }: Adviser): (Advice & { then: Plan }) | null {
  const setting = settingOf(plan, pool, family, day);
  if (!setting) return null;
  const { rescue, command } = rescueOf(setting);
  const result = command && applyCommand(plan, command);
  const then = result?.ok ? result.plan : plan;
  const here = new Set(plan.drives.map(({ id }) => id));
  const before = new Set(plan.steps.map(({ id }) => id));
  const steps = then.steps.filter(({ id }) => !before.has(id));
  const brings = then.drives.flatMap((drive): Errand[] => (here.has(drive.id) ? [] : [{ brings: drive }]));
  const acts = result?.ok ? rescue.acts : [];
  const errands = [...brings, ...acts.flatMap((act) => errandsOfAct(act, pool, act.step && steps.shift()))];
  // Its steps stay in the plan, so that the next pool is not given the same drives.
  return { rescues: [rescue], errands, then };
}

/** Of each box what is advised, worked out once. */
const advised = new WeakMap<Plan, Advice>();

/**
 * What to do now at a box as it is, for all its pools: the steps, the drives to buy, and the hours between.
 *
 * @param plan the box as it is, without steps
 * @example adviceFor(planWithD2Failed, { family: "TB", day: null }).errands // [{ brings: … }, { waits: 48 }, …]
 */
export function adviceFor(plan: Plan, adviser: Adviser): Advice {
  const old = advised.get(plan);
  if (old) return old;
  const courses: Advice[] = [];
  let now = plan;
  for (const { id } of poolsToRescue(plan)) {
    const course = courseFor(now, id, adviser);
    if (!course) continue;
    courses.push(course);
    now = course.then;
  }
  const advice: Advice = {
    rescues: courses.flatMap(({ rescues }) => rescues),
    errands: courses.flatMap(({ errands }) => errands),
  };
  advised.set(plan, advice);
  return advice;
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
