import { driveOf } from "../box/find";
import type { UnitFamily } from "../bytes/formatBytes";
import type { DoneBefore, DoneStep, Plan, ShownSize } from "../document/plan";
import { nameOfDrive } from "../drives/nameOfDrive";
import { freeRecordId } from "../logbook/records";
import { moduleOf } from "../steps/registry";
import { stepLabel } from "../steps/stepLabel";
import { stepNow, type StepNow } from "./stepNow";

/** How a step ended at the box. */
export interface Ending {
  start: string;
  end: string;
  outcome: DoneStep["outcome"];
  why?: string;
  shown?: ShownSize;
}

/** What of a time is worth keeping: seconds of work say nothing. */
const hours = (value: number): number => Math.round(value * 1000) / 1000;

/** The drives that a step takes in hand, named as they were before it. */
function drivesIn({ step, before, walked }: StepNow, family: UnitFamily): string[] {
  const ids = new Set([...moduleOf(step).handles(step), ...walked.cost.missing, ...walked.cost.erased]);
  return [...ids].slice(0, 24).flatMap((id) => {
    const drive = driveOf(before.state.plan, id);
    return drive ? [nameOfDrive(drive, family).slice(0, 120)] : [];
  });
}

/**
 * A step as the history keeps it: what it was, and what was expected of it and came.
 *
 * @param plan the plan before it, whose history it joins
 */
export function doneStep(plan: Plan, now: StepNow, ending: Ending, family: UnitFamily): DoneStep {
  const { step, before, walked } = now;
  const drives = drivesIn(now, family);
  const { boxWork } = walked.cost;
  return {
    id: freeRecordId("h", plan.history ?? []),
    step: step.id,
    kind: step.kind,
    label: stepLabel(step, before.state.plan, family).slice(0, 200),
    ...(drives.length > 0 ? { drives } : {}),
    ...ending,
    ...(boxWork
      ? {
          work: boxWork.kind,
          byRates: hours(boxWork.byRates),
          predicted: {
            low: hours(boxWork.hours.low),
            expected: hours(boxWork.hours.expected),
            high: hours(boxWork.hours.high),
          },
        }
      : {}),
  };
}

/** What of the state after a step the document tells nowhere else, with when each pool was backed up. */
function doneBefore(plan: Plan, { step, walked, after }: StepNow, end: string): DoneBefore | undefined {
  const { tested, backedUp } = after.state;
  if (tested.size === 0 && backedUp.size === 0) return undefined;
  const isBackup = walked.cost.boxWork?.kind === "backup";
  const earlier = new Map(plan.doneBefore?.backedUp?.map(({ pool, at }) => [pool, at]));
  const whenOf = (pool: string) =>
    isBackup && "pool" in step && step.pool === pool ? end : (earlier.get(pool) ?? end);
  return {
    ...(tested.size > 0 ? { tested: [...tested] } : {}),
    ...(backedUp.size > 0 ? { backedUp: [...backedUp].map(([pool, rate]) => ({ pool, rate, at: whenOf(pool) })) } : {}),
  };
}

/** The rest of the steps; what began with the one that is done begins by itself now. */
function stepsAfter(plan: Plan, id: string): Plan["steps"] {
  const rest = plan.steps.filter((step) => step.id !== id);
  const [first, ...more] = rest;
  if (!first?.together || plan.steps[0]?.id !== id) return rest;
  const { together: _together, ...begins } = first;
  return [begins as typeof first, ...more];
}

const withoutUndefined = (plan: Plan): Plan =>
  Object.fromEntries(Object.entries(plan).filter(([, value]) => value !== undefined)) as unknown as Plan;

/** The steps that are still under way without one of them; nothing where none is. */
function othersUnderWay({ underWay = [] }: Plan, id: string): Plan["underWay"] {
  const others = underWay.filter(({ step }) => step !== id);
  return others.length > 0 ? others : undefined;
}

/**
 * The plan once a step is done: it begins at the box as the step has left it, and the step is history.
 *
 * @returns the next plan, or why the step cannot be done on the box as the plan has it
 * @example const next = afterStep(plan, "s1", { start, end, outcome: "done" }, "TB"); next.ok && next.plan.history?.at(-1)?.step
 * // "s1"
 */
export function afterStep(
  plan: Plan,
  id: string,
  ending: Ending,
  family: UnitFamily,
): { ok: true; plan: Plan } | { ok: false; reason: string } {
  const now = stepNow(plan, id, family);
  if (!now) return { ok: false, reason: "That step is no longer in the plan." };
  if (!now.walked.done) {
    const [block] = now.walked.findings.filter(({ severity }) => severity === "block");
    const why = block ? ` ${block.message}` : "";
    return {
      ok: false,
      reason: `By the plan this cannot have been done.${why} Read the box, and set the plan to how it is.`,
    };
  }
  const { plan: box } = now.after.state;
  return {
    ok: true,
    plan: withoutUndefined({
      ...box,
      steps: stepsAfter(plan, id),
      underWay: othersUnderWay(plan, id),
      doneBefore: doneBefore(plan, now, ending.end),
      history: [...(plan.history ?? []), doneStep(plan, now, ending, family)],
    } as Plan),
  };
}

/**
 * The plan once a step that was begun has stopped: it stays in the plan, and what was recorded of it is history.
 *
 * @example afterStopping(plan, "s1", { start, end, outcome: "stopped", why: "refused" }, "TB")?.steps[0].id // "s1"
 */
export function afterStopping(plan: Plan, id: string, ending: Ending, family: UnitFamily): Plan | null {
  const now = stepNow(plan, id, family);
  if (!now) return null;
  return withoutUndefined({
    ...plan,
    underWay: othersUnderWay(plan, id),
    history: [...(plan.history ?? []), doneStep(plan, now, ending, family)],
  } as Plan);
}
