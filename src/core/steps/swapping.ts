import type { BoxState } from "../box/state";
import type { BoxRules, Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { LEAST_HOURS } from "../logbook/recordedTime";
import { correctedHours, ownTimesOf } from "../logbook/ownTimes";
import { addHours, type Hours, hoursFor, longerHours } from "../time/hours";
import { hoursWords } from "../time/hoursWords";
import { counted } from "../words/counted";
import { times } from "../words/times";
import { moduleOf } from "./registry";
import { A_FEW_MINUTES, type StepCost, type StepSetting } from "./stepModule";

// What it takes to change a drive in a box that cannot do it while it runs: the box is off, or the pool stopped, for
// the minutes of the change. What is then filled or rebuilt, is so while it runs again.

const placesOf = (plan: Plan) => new Map(plan.drives.map((drive) => [drive.id, bayOf(drive)]));

/** Whether a drive went into a bay, out of one, or from one to another. */
function handsInside(before: Plan, after: Plan): boolean {
  const then = placesOf(after);
  return before.drives.some((drive) => then.has(drive.id) && then.get(drive.id) !== bayOf(drive));
}

/** How often a box has to be off, or its pool stopped, for a step; never where there is no pool yet. */
function swapsOf(step: Step, before: BoxState, after: BoxState, rules: BoxRules): number {
  if (rules.swapping === "hot-swap" || before.plan.pools.length === 0) return 0;
  if (!handsInside(before.plan, after.plan)) return 0;
  return moduleOf(step).swaps?.(step, before.plan) ?? 1;
}

/** The time that some changes of drives take away from a pool. */
const swapHours = (swaps: number, { swapMinutes }: BoxRules): Hours => hoursFor(swaps * swapMinutes * 60, 1);

/** The rules of the box while it does a step, which can say whom it favours meanwhile. */
const rulesFor = (step: Step, rules: BoxRules): BoxRules =>
  "preference" in step && step.preference ? { ...rules, preference: step.preference } : rules;

/** What a step costs by the times that this box took for such work before; by the usual rates where it took none. */
function withOwnTimes(step: Step, plan: Plan, cost: StepCost): StepCost {
  const kind = moduleOf(step).boxWork(step);
  if (kind === null || cost.hours.expected < LEAST_HOURS) return cost;
  const { factors } = ownTimesOf(plan);
  const hours = correctedHours(cost.hours, kind, factors);
  const boxWork = { kind, byRates: cost.hours.expected, hours };
  if (hours === cost.hours) return { ...cost, boxWork };
  return { ...cost, hours, offline: correctedHours(cost.offline, kind, factors), boxWork };
}

/**
 * What a step costs, the changes of drives that it asks for included.
 *
 * @param after the box after it
 * @param shared whether the box is off for another step anyway, which then counts
 * @example costOfStep(before, after, replaceStep, setting).offline.expected // 0.25: off for 15 minutes
 */
export function costOfStep(
  before: BoxState,
  after: BoxState,
  step: Step,
  setting: StepSetting,
  shared = false,
): StepCost {
  const rules = rulesFor(step, setting.rules);
  const bare = withOwnTimes(step, before.plan, moduleOf(step).cost(before, after, step, { ...setting, rules }));
  // However little a box has to write: it is told, and looked at.
  const own = { ...bare, hours: longerHours(A_FEW_MINUTES, bare.hours) };
  // What was on a drive that is erased does not come back with a step back.
  const holdsData = (id: string) => before.plan.drives.some((drive) => drive.id === id && drive.contents !== undefined);
  const cost = own.undoable && own.erased.some(holdsData) ? { ...own, undoable: false } : own;
  const swaps = swapsOf(step, before, after, rules);
  if (swaps === 0) return cost;
  const away = swapHours(swaps, rules);
  const hours = addHours(away, cost.hours);
  return shared ? { ...cost, hours } : { ...cost, swaps, hours, offline: addHours(away, cost.offline) };
}

/**
 * For how long, and how often, a box is away for changes of drives, in words; empty where it is not.
 *
 * @example swapWords(3, rules) // "the box is off for about 15 minutes, three times"
 */
export function swapWords(swaps: number, { swapping, swapMinutes }: BoxRules): string {
  if (swaps === 0) return "";
  const what = swapping === "power-off" ? "the box is off" : "the pool is stopped";
  return `${what} for about ${counted(swapMinutes, "minute")}${swaps > 1 ? `, ${times(swaps)}` : ""}`;
}

/**
 * Whether a pool can be used while a step runs, in words.
 *
 * @example onlineWords(cost, rules) // "the box is off for about 15 minutes, then online, slower"
 */
export function onlineWords(cost: StepCost, rules: BoxRules): string {
  const away = swapWords(cost.swaps, rules);
  if (cost.online === "offline")
    return cost.offline.expected < cost.hours.expected
      ? `the pool is offline for ${hoursWords(cost.offline)}`
      : "the pool is offline";
  const then = cost.online === "slower" ? "online, slower" : "online";
  return away ? `${away}, then ${then}` : then;
}
