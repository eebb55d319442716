import { rulesOfBox } from "../box/rulesOfBox";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan, Step, StepBody, WorkKind } from "../document/plan";
import type { Hours } from "../time/hours";
import { moduleOf, stepMenus } from "../steps/registry";
import { stepNow } from "./stepNow";

/** A work that a box can do outside its plan, with what is expected of it. */
export interface WorkOutside {
  /** Of what: a pool or a drive, by name. */
  of: string;
  byRates: number;
  hours: Hours;
}

/** What the menus of steps offer on a box, each with the name of the pool or the drive that it is about. */
function offersOn(plan: Plan, unit: UnitFamily): { of: string; step: StepBody }[] {
  const setting = { plan, rules: rulesOfBox(plan), unit };
  return stepMenus.flatMap((menu) => {
    if (menu.under === "pool")
      return plan.pools.flatMap((pool) =>
        menu.offers(pool, setting).flatMap(({ steps: [step] }) => (step ? [{ of: pool.name || pool.id, step }] : [])),
      );
    return menu.under === "drives"
      ? menu.offers(setting).flatMap(({ label, steps: [step] }) => (step ? [{ of: label, step }] : []))
      : [];
  });
}

/**
 * The works of a kind that the box can do now, as one finds them in the menus of steps, with what is expected of each.
 *
 * @example worksOutside(plan, "check", "TB")[0] // { of: "Images", byRates: 22.1, hours: … }
 */
export function worksOutside(plan: Plan, work: WorkKind, unit: UnitFamily): WorkOutside[] {
  return offersOn(plan, unit).flatMap(({ of, step }) => {
    if (moduleOf(step).boxWork(step as Step) !== work) return [];
    const box = stepNow({ ...plan, steps: [{ ...step, id: "outside" } as Step] }, "outside", unit)?.walked.cost.boxWork;
    return box ? [{ of, byRates: box.byRates, hours: box.hours }] : [];
  });
}
