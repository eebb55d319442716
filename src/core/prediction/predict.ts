import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan } from "../document/plan";
import type { Finding } from "../findings/finding";
import { rulesOf } from "../rules/ruleSets";
import { replacementMend } from "./replacement";
import { predictPool, type PoolPrediction } from "./predictPool";

/** The box at one moment: before the first step (`after` is null) or after a step. */
export interface Moment {
  after: string | null;
  pools: PoolPrediction[];
}

/** What the core says of a plan. */
export interface Prediction {
  pools: PoolPrediction[];
  moments: Moment[];
}

/** What is wrong with a member's health is mended by another drive in its place. */
function withReplacement(finding: Finding, plan: Plan, family: UnitFamily): Finding {
  const [drive] = finding.drives;
  if (drive === undefined || !(finding.code === "drive-failing" || finding.code === "drive-suspect")) return finding;
  const mend = replacementMend(plan, drive, family);
  return mend ? { ...finding, mend } : finding;
}

/**
 * Predicts a plan: what its pools hold, what they survive, where the bytes went and what is wrong.
 *
 * @param plan a plan whose references hold (`checkPlan`)
 * @param family the units in which the findings speak
 * @example predict(clinic).pools[0].usableBytes // what the clinic's hybrid of 4, 4, 8 and 12 TB holds
 */
export function predict(plan: Plan, family: UnitFamily = "TB"): Prediction {
  const rules = rulesOf(plan.box.rules);
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const pools = plan.pools.map((pool, p) => {
    const predicted = predictPool(pool, driveOf, rules, `/pools/${p}`, family);
    return { ...predicted, findings: predicted.findings.map((finding) => withReplacement(finding, plan, family)) };
  });
  return { pools, moments: [{ after: null, pools }] };
}
