import { coverage } from "@/core/data/coverage";
import type { Plan, Pool } from "@/core/document/plan";
import type { GroupPrediction } from "@/core/prediction/predictGroup";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { backupDemands, fillingFindings, mergedFindings } from "@/core/schedule/backupsFilling";
import { boxFindings } from "@/core/prediction/boxFindings";
import { demand, lateFindings } from "@/core/schedule/demand";
import { timesByCalendar, timesByHours } from "@/core/schedule/stepTimes";
import type { Finding } from "@/core/findings/finding";
import { type ScheduledStep, schedulePlan } from "@/core/schedule/schedulePlan";
import { ownTimesOf, type OwnTimes } from "@/core/logbook/ownTimes";
import { workKinds } from "@/core/logbook/recordedTime";
import { dayAfter } from "@/core/time/days";
import { walkNow } from "@/core/walk/firstMoment";
import type { Walk, WalkedStep } from "@/core/walk/moment";
import { nextStep, poolsAt } from "@/core/walk/poolsAt";
import { walkPlan } from "@/core/walk/walkPlan";
import { type ChanceAnswers, chanceAnswers, chanceWork, readyForChances } from "./chanceAnswer";
import type { Part } from "./parts";
import { rescueAnswers } from "./rescueAnswer";

/** A finding of the plan as it stands: with where it stands, and without how the page mends it. */
const withPointer = ({ code, severity, message, drives, pointer }: Finding) => ({
  code,
  severity,
  message,
  drives,
  pointer,
});

/** A pool as `/api/predict` tells it, with those of its details that are asked for. All sizes in bytes. */
function poolAnswer(pool: PoolPrediction, parts: ReadonlySet<Part>) {
  return {
    id: pool.id,
    name: pool.name,
    usableBytes: pool.usableBytes,
    tolerance: pool.tolerance,
    ...pool.condition,
    ...(parts.has("survival") ? { smallestFatalSet: pool.smallestFatalSet, survival: pool.survival } : {}),
    ...(parts.has("groups") ? { groups: pool.groups.map((group) => groupAnswer(group, parts)) } : {}),
    ...(parts.has("volumes") ? { volumes: pool.volumes } : {}),
    ...(parts.has("ledger") ? { ledger: pool.ledger } : {}),
    ...(parts.has("findings") ? { findings: pool.findings.map(withPointer) } : {}),
  };
}

const groupAnswer = (
  { id, layout, drives, usableBytes, tolerance, bands }: GroupPrediction,
  parts: ReadonlySet<Part>,
) => ({ id, layout, drives, usableBytes, tolerance, ...(parts.has("bands") ? { bands } : {}) });

/** What a step does, takes and risks, and when where the plan has a calendar. */
function stepAnswer(
  { step, done, does, cost, from, to, exposure, findings }: WalkedStep,
  dated: ScheduledStep | undefined,
  late: ReadonlyMap<string, Finding[]> | null,
) {
  return {
    done,
    does,
    hours: cost.hours,
    ...(cost.boxWork ? { boxWork: cost.boxWork } : {}),
    begins: from,
    ends: to,
    ...(dated ? { startsAt: isoOf(dated.start), endsAt: isoOf(dated.end), attention: dated.attention } : {}),
    erased: cost.erased,
    work: cost.work,
    online: cost.online,
    offlineHours: cost.offline,
    undoable: cost.undoable,
    exposure,
    ...(late
      ? {
          findings: [...(late.get(step.id) ?? []), ...findings].map(({ code, severity, message, drives }) => ({
            code,
            severity,
            message,
            drives,
          })),
        }
      : {}),
  };
}

const isoOf = (at: number) => new Date(at).toISOString();

/** The chances of a plan where they are asked for; none where that would take too long. */
function chancesIn(walked: Walk, parts: ReadonlySet<Part>, work: Work): ChanceAnswers | null {
  if (!parts.has("chance")) return null;
  const ready = readyForChances(walked);
  work.left -= chanceWork(ready);
  return work.left > 0 ? chanceAnswers(ready) : null;
}

/** A plan walked and dated, as far as the parts that are asked for need it. */
function prepared(plan: Plan, today: string, parts: ReadonlySet<Part>, work: Work) {
  const isWalked = WALKED.some((part) => parts.has(part));
  const walked = isWalked ? walkPlan(plan, "TB", undefined, today) : walkNow(plan, "TB", today);
  const dates = isWalked && plan.calendar ? schedulePlan(walked, plan.calendar) : null;
  const times = dates ? timesByCalendar(dates) : timesByHours(walked);
  const demands = isWalked && plan.dataSets ? demand(walked, times) : [];
  const start = plan.calendar?.start ?? today;
  return { plan, walked, dates, times, demands, start, chances: chancesIn(walked, parts, work) };
}
type Prepared = ReturnType<typeof prepared>;

/** What can only be told by going through the steps. */
const WALKED: readonly Part[] = ["moments", "orders", "coverage", "demand"];

/** How much is predicted for one answer: pools of so many drives in all, counted anew where a step has changed them. */
const MOST_PREDICTED_DRIVES = 4000;

/** Goes down with what is predicted; at 0 the answer would take too long. */
export interface Work {
  left: number;
}

export const fullWork = (): Work => ({ left: MOST_PREDICTED_DRIVES });

/** What it takes to predict a pool, measured in drives. */
const weightOf = ({ groups, volumes }: Pool): number =>
  1 + groups.reduce((sum, group) => sum + group.drives.length, 0) + volumes.length / 2;

/** The pools at a moment, and what they are in the middle of by the step that begins then. */
function poolsAnswer(made: Prepared, at: number, parts: ReadonlySet<Part>, work: Work) {
  const { walked, plan } = made;
  const [moment, before] = [walked.moments[at], walked.moments[at - 1]];
  if (!moment) return [];
  const next = walked.moments.length > 1 ? nextStep(walked, at) : plan.steps.find((step) => !step.disabled);
  if (moment.state.plan !== before?.state.plan)
    work.left -= moment.state.plan.pools.reduce((sum, pool) => sum + weightOf(pool), 0);
  return poolsAt(moment, "TB", next).map((pool) => ({
    ...poolAnswer(pool, parts),
    ...(at === 0 ? made.chances?.ofPool(pool.id) : {}),
  }));
}

function* momentAnswers(made: Prepared, parts: ReadonlySet<Part>, work: Work) {
  const { walked, dates, times, demands, start, plan } = made;
  const late = parts.has("findings")
    ? mergedFindings(
        lateFindings(demands, start, plan.calendar?.deliveryDays ?? 0),
        fillingFindings(walked, times, start),
      )
    : null;
  for (const [i, moment] of walked.moments.entries()) {
    yield {
      after: moment.after,
      ...(moment.walked ? stepAnswer(moment.walked, dates?.steps[i - 1], late) : {}),
      ...(moment.after === null ? {} : made.chances?.ofStep(moment.after)),
      capacities: moment.capacities,
      ...(parts.has("pools") ? { pools: poolsAnswer(made, i, parts, work) } : {}),
    };
    if (work.left <= 0) return;
  }
}

/** What is told of the data sets, where the plan has any. */
function* dataFields({ plan, walked, demands, start }: Prepared, parts: ReadonlySet<Part>): Generator<Field> {
  if (!plan.dataSets) return;
  const fullOn = (days: number | null) => (days === null ? null : dayAfter(start, days));
  if (parts.has("coverage")) {
    const end = walked.moments.at(-1)?.state.plan ?? plan;
    yield { name: "coverage", value: { now: coverage(plan, walked.day), after: coverage(end, walked.day) } };
  }
  if (parts.has("backups"))
    yield {
      name: "backups",
      items: backupDemands(plan).map(({ backup, fullAfter }) => ({ backup: backup.id, fullOn: fullOn(fullAfter) })),
    };
  if (parts.has("demand"))
    yield {
      name: "demand",
      items: demands.map(({ volume, fullWithPlan, fullWithoutPlan }) => ({
        volume: volume.id,
        fullOn: fullOn(fullWithPlan),
        fullWithoutPlanOn: fullOn(fullWithoutPlan),
      })),
    };
}

/** By what the hours of each kind of work are corrected, and by how many entries of the logbook. */
const ownTimesAnswer = ({ of, factors }: OwnTimes) =>
  workKinds.flatMap((work) => {
    const [known, by] = [of[work], factors[work]];
    return known && by ? [{ work, entries: known.own, ofOtherWork: known.others, factor: by }] : [];
  });

/** A field of an answer: a value, or a list of which each item is worked out when it is written. */
export type Field = { name: string; value: unknown } | { name: string; items: Iterable<unknown> };

/**
 * What `/api/predict` answers for a plan, as far as it is asked: its pools now, and every moment with what its step
 * takes and risks; where the plan has a calendar, when; where it has data sets, what would become of them now and after
 * it, and when they fill their volumes. It is worked out field by field and moment by moment, so that who writes it can
 * stop.
 *
 * @param today as YYYY-MM-DD, by which the age of backups is judged where the plan has no calendar
 * @param work what may be predicted; once nothing of it is left, the moments break off
 * @example [...answerFields(plan, "2026-11-26", new Set(["pools"]), fullWork())][0] // { name: "pools", items: … }
 */
export function* answerFields(plan: Plan, today: string, parts: ReadonlySet<Part>, work: Work): Generator<Field> {
  const made = prepared(plan, today, parts, work);
  if (parts.has("findings")) yield { name: "findings", items: boxFindings(plan).map(withPointer) };
  if (parts.has("pools")) yield { name: "pools", items: poolsAnswer(made, 0, parts, work) };
  const own = ownTimesOf(plan);
  if (parts.has("moments") && own.times.length > 0) yield { name: "ownTimes", items: ownTimesAnswer(own) };
  if (parts.has("moments")) yield { name: "moments", items: momentAnswers(made, parts, work) };
  if (made.chances) {
    yield { name: "planChance", value: made.chances.plan.planChance };
    yield { name: "planWithBackups", value: made.chances.plan.planWithBackups };
  }
  if (parts.has("orders") && made.dates) yield { name: "orders", items: made.dates.orders };
  yield* dataFields(made, parts);
  if (parts.has("rescue")) yield { name: "rescue", items: rescueAnswers(plan, made.start) };
}
