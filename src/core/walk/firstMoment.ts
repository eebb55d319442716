import { capacitiesOf } from "../box/capacities";
import { toleranceOfPool } from "../box/figures";
import { withParityNamed } from "../box/parityNamed";
import { rulesOfBox } from "../box/rulesOfBox";
import type { BoxState } from "../box/state";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan } from "../document/plan";
import type { Walk, WalkedMoment, WalkedStep } from "./moment";

/** A moment with what its pools hold and bear; where nothing has changed since the one before, as there. */
export function momentOf(state: BoxState, walked: WalkedStep | null, before?: WalkedMoment): WalkedMoment {
  const same = before?.state.plan === state.plan ? before : null;
  const rules = rulesOfBox(state.plan);
  return {
    after: walked?.step.id ?? null,
    state,
    capacities: same?.capacities ?? capacitiesOf(state.plan, rules),
    tolerance: same?.tolerance ?? state.plan.pools.map((pool) => toleranceOfPool(state.plan, pool, rules)),
    walked,
  };
}

/** What steps that are done have left that the document tells nowhere else. */
const stateBefore = ({ doneBefore }: Plan): Pick<BoxState, "tested" | "backedUp"> => ({
  tested: new Set(doneBefore?.tested),
  backedUp: new Map(doneBefore?.backedUp?.map(({ pool, rate }) => [pool, rate])),
});

/** The box before the first step of a plan. */
export const firstMoment = (plan: Plan): WalkedMoment =>
  momentOf({ plan: withParityNamed({ ...plan, steps: [] }), ...stateBefore(plan) }, null);

/**
 * The walk of a plan as if it had no steps: what can be said of it without knowing any step.
 *
 * @example walkNow(plan).moments.length // 1
 */
export function walkNow(plan: Plan, family: UnitFamily, today: string | null): Walk {
  const now = plan.steps.length === 0 ? plan : { ...plan, steps: [] };
  return { plan: now, family, day: plan.calendar?.start ?? today, moments: [firstMoment(now)] };
}
