import type { UnitFamily } from "../bytes/formatBytes";
import { drivesOf } from "../box/find";
import type { BoxRules, Plan, Pool, Step } from "../document/plan";
import { byWeight, type Finding } from "../findings/finding";
import { ownTimesOf } from "../logbook/ownTimes";
import { rulesOf } from "../rules/ruleSets";
import { replacementMend } from "./replacement";
import { idleSpares, spareFindings } from "./spareFindings";
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

/** What of a drive's health is mended by another in its place. */
const REPLACED: ReadonlySet<string> = new Set(["drive-failing", "drive-gets-worse", "drive-suspect"]);

/** What is wrong with a member's health is mended by another drive in its place. */
function withReplacement(finding: Finding, plan: Plan, family: UnitFamily): Finding {
  const [drive] = finding.drives;
  if (drive === undefined || !REPLACED.has(finding.code)) return finding;
  const mend = replacementMend(plan, drive, family);
  return mend ? { ...finding, mend } : finding;
}

/** The hot spares of a pool, each with what is to be said of it. */
function aboutSpares(plan: Plan, pool: Pool, rules: BoxRules, family: UnitFamily, next: Step | undefined): Finding[] {
  const spares = drivesOf(plan, [...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])]);
  if (spares.length === 0) return [];
  return [
    ...spares.flatMap((spare) => spareFindings(plan, pool, spare, rules, family)),
    ...idleSpares(plan, pool, rules, family, next),
  ];
}

/** The step that begins now: the first that is not skipped. */
const firstStep = (plan: Plan): Step | undefined => plan.steps.find((step) => !step.disabled);

/**
 * Predicts a plan: what its pools hold, what they survive, where the bytes went and what is wrong.
 *
 * @param plan a plan whose references hold (`checkPlan`)
 * @param family the units in which the findings speak
 * @param next the step that begins at this moment; the first of the plan where nothing is said
 * @example predict(clinic).pools[0].usableBytes // what the clinic's hybrid of 4, 4, 8 and 12 TB holds
 */
export function predict(plan: Plan, family: UnitFamily = "TB", next: Step | undefined = firstStep(plan)): Prediction {
  const rules = rulesOf(plan.box.rules);
  const own = ownTimesOf(plan).factors;
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const pools = plan.pools.map((pool, p) => {
    const pointer = `/pools/${p}`;
    const predicted = predictPool(pool, driveOf, rules, pointer, family, next, own);
    const spares = aboutSpares(plan, pool, rules, family, next).map((finding) => ({ pointer, ...finding }));
    const findings = spares.length > 0 ? byWeight([...predicted.findings, ...spares]) : predicted.findings;
    return { ...predicted, findings: findings.map((finding) => withReplacement(finding, plan, family)) };
  });
  return { pools, moments: [{ after: null, pools }] };
}
