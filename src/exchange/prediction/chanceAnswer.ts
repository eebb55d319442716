import type { PoolInTime, PoolAtRest } from "@/core/chance/atRest";
import type { StepInPlan } from "@/core/chance/alongPlan";
import type { Ranged } from "@/core/chance/figures";
import type { Spread } from "@/core/chance/inputs";
import { CAUSES, mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import { prepareChances, type PreparedChances, rangedChances } from "@/core/chance/planChances";
import type { Walk } from "@/core/walk/moment";

const twoRows = ({ poolLost, fileDamaged }: Ranged<PoolInTime>) => ({ poolLost, fileDamaged });

/** A pool's chances, of 1: by its drives alone; and what no backup brings back, whatever has taken it. */
function poolChance({ year, tenYears }: Ranged<PoolAtRest>) {
  return {
    chance: { year: twoRows(year), tenYears: twoRows(tenYears), mostly: mostly(year.causes, OF_DRIVES) },
    withBackups: {
      year: year.withBackups,
      tenYears: tenYears.withBackups,
      mostly: mostly(year.withBackups, CAUSES),
    },
  };
}

/** A step's chances, of 1. */
const stepChance = ({ any, causes, withBackups }: Ranged<StepInPlan>) => ({
  chance: { ...any, mostly: mostly(causes, OF_DRIVES) },
  withBackups,
});

/** What `/api/predict` answers about chances, by pools and steps. */
export interface ChanceAnswers {
  ofPool: (id: string) => ReturnType<typeof poolChance> | object;
  ofStep: (id: string) => ReturnType<typeof stepChance> | object;
  plan: { planChance: Spread; planWithBackups: Spread };
}

/** What it takes to work out the chances of a plan, measured in drives. */
export const chanceWork = ({ resting, walked }: PreparedChances): number =>
  [...resting.flatMap(({ resting: { pools } }) => pools), ...walked.stretches.flatMap(({ parts }) => parts)].reduce(
    (sum, { model }) => sum + model.drives.length,
    0,
  );

/** A walked plan made ready for what is answered about its chances: the pools as they are now, and all its steps. */
export const readyForChances = (walk: Walk): PreparedChances => prepareChances(walk, [0]);

/**
 * The chances of a plan for `/api/predict`: at rest of the pools as they are now, and along the steps.
 *
 * @example chanceAnswers(readyForChances(walk)).plan.planChance.expected // 0.1077
 */
export function chanceAnswers(prepared: PreparedChances): ChanceAnswers {
  const { moments, along } = rangedChances(prepared);
  const pools = new Map((moments[0]?.pools ?? []).map((pool) => [pool.id, poolChance(pool)]));
  const steps = new Map(along.steps.map((step) => [step.step, stepChance(step)]));
  return {
    ofPool: (id) => pools.get(id) ?? {},
    ofStep: (id) => steps.get(id) ?? {},
    plan: { planChance: along.any, planWithBackups: along.withBackups },
  };
}
