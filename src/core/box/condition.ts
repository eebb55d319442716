import type { Band } from "../bands/band";
import { parityOf } from "../bands/parityOf";
import type { BoxRules, Group, Plan, Pool, Step } from "../document/plan";
import { type Condition, leftOf, stateOf } from "../failures/condition";
import { fateOf } from "../failures/fate";
import { layoutOf } from "../layouts/registry";
import { bandsOfGroup } from "./figures";
import { goneIn } from "./gone";

/** Whether a step fills a drive that is in the box already, in the place of one of a pool that is gone. */
export function fillsByItself(step: Step | undefined, pool: Pool): boolean {
  if (step?.kind !== "rebuild" || step.disabled) return false;
  const group = pool.groups.find(({ id }) => id === step.group);
  if (!group?.drives.includes(step.drive)) return false;
  return step.by === step.drive || pool.spares.includes(step.by) || group.spares?.includes(step.by) === true;
}

/** What of a pool decides its state. */
export interface ConditionSetting {
  rules: Pick<BoxRules, "parityWrites">;
  bandsOf: (group: Group) => readonly Band[];
  /** The drives of the box that have failed or are missing. */
  gone: ReadonlySet<string>;
  /** The step that begins at this moment. */
  next: Step | undefined;
}

/**
 * The drives of a group whose own files cannot be read: where parity is written by schedule, a drive that is gone is
 * not stood in for by the others until it has been restored; of independent drives without parity left, they are lost.
 */
function unreadableOf(group: Group, lost: readonly string[], { rules, bandsOf, gone }: ConditionSetting): string[] {
  const missing = group.drives.filter((id) => gone.has(id));
  if (layoutOf(group.layout).dedicatedParity === undefined || rules.parityWrites !== "by-schedule")
    return missing.filter((id) => lost.includes(id));
  const parity = parityOf(bandsOf(group));
  return missing.filter((id) => !parity.includes(id));
}

/**
 * The state of a pool, by its bands and the drives that it lacks. Where the next step fills a spare, it is rebuilding.
 *
 * @example conditionFrom(mirrorWithD2Failed, setting)
 * // { state: "degraded", redundancyLeft: 0, missing: ["d2"], unreadable: [] }
 */
export function conditionFrom(pool: Pool, setting: ConditionSetting): Condition {
  const { bandsOf, gone, next } = setting;
  const fate = fateOf(pool.groups.flatMap(bandsOf), gone);
  const lost = fate.kind === "partly-lost" ? fate.lostDrives : [];
  return {
    state: stateOf(fate, fillsByItself(next, pool)),
    redundancyLeft: leftOf(fate),
    missing: gone.size === 0 ? [] : pool.groups.flatMap((group) => group.drives.filter((id) => gone.has(id))),
    unreadable: gone.size === 0 ? [] : pool.groups.flatMap((group) => unreadableOf(group, lost, setting)),
  };
}

/**
 * The same of a pool of a plan.
 *
 * @param next the step that begins at this moment
 * @param more drives that are thought of as failed besides
 * @example conditionOf(plan, pool, rules).state // "degraded"
 */
export const conditionOf = (
  plan: Plan,
  pool: Pool,
  rules: BoxRules,
  next?: Step,
  more: ReadonlySet<string> = new Set(),
): Condition =>
  conditionFrom(pool, {
    rules,
    bandsOf: (group) => bandsOfGroup(plan, group, rules),
    gone: more.size === 0 ? goneIn(plan) : new Set([...goneIn(plan), ...more]),
    next,
  });
