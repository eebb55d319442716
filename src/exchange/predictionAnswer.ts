import { coverage } from "@/core/data/coverage";
import type { Plan } from "@/core/document/plan";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { backupDemands, fillingFindings, mergedFindings } from "@/core/schedule/backupsFilling";
import { boxFindings } from "@/core/prediction/boxFindings";
import { demand, lateFindings, timesByCalendar, timesByHours } from "@/core/schedule/demand";
import type { Finding } from "@/core/findings/finding";
import { type ScheduledStep, schedulePlan } from "@/core/schedule/schedulePlan";
import { dayAfter } from "@/core/time/days";
import type { WalkedStep } from "@/core/walk/moment";
import { poolsAt } from "@/core/walk/poolsAt";
import { walkPlan } from "@/core/walk/walkPlan";

/** A finding of the plan as it stands: with where it stands, and without how the page mends it. */
const withPointer = ({ code, severity, message, drives, pointer }: Finding) => ({
  code,
  severity,
  message,
  drives,
  pointer,
});

/** A pool as `/api/predict` tells it: figures, bands, ledger, findings. All sizes in bytes. */
function poolAnswer(pool: PoolPrediction) {
  return {
    id: pool.id,
    name: pool.name,
    usableBytes: pool.usableBytes,
    tolerance: pool.tolerance,
    smallestFatalSet: pool.smallestFatalSet,
    survival: pool.survival,
    groups: pool.groups.map(({ id, layout, drives, usableBytes, tolerance, bands }) => ({
      id,
      layout,
      drives,
      usableBytes,
      tolerance,
      bands,
    })),
    volumes: pool.volumes,
    ledger: pool.ledger,
    findings: pool.findings.map(withPointer),
  };
}

/** What a step does, takes and risks, and when where the plan has a calendar. */
function stepAnswer(
  { step, done, does, cost, from, to, exposure, findings }: WalkedStep,
  dated: ScheduledStep | undefined,
  late: ReadonlyMap<string, Finding[]>,
) {
  return {
    done,
    does,
    hours: cost.hours,
    begins: from,
    ends: to,
    ...(dated ? { startsAt: isoOf(dated.start), endsAt: isoOf(dated.end), attention: dated.attention } : {}),
    erased: cost.erased,
    work: cost.work,
    online: cost.online,
    offlineHours: cost.offline,
    undoable: cost.undoable,
    exposure,
    findings: [...(late.get(step.id) ?? []), ...findings].map(({ code, severity, message, drives }) => ({
      code,
      severity,
      message,
      drives,
    })),
  };
}

const isoOf = (at: number) => new Date(at).toISOString();

/**
 * What `/api/predict` answers for a plan: its pools now, and every moment with what its step takes and risks; where the
 * plan has a calendar, when; where it has data sets, what would become of them now and after it, and when they fill
 * their volumes.
 *
 * @param today as YYYY-MM-DD, by which the age of backups is judged where the plan has no calendar
 */
export function predictionAnswer(plan: Plan, today: string) {
  const walked = walkPlan(plan, "TB", undefined, today);
  const { moments } = walked;
  const dates = plan.calendar ? schedulePlan(walked, plan.calendar) : null;
  const times = dates ? timesByCalendar(dates) : timesByHours(walked);
  const demands = plan.dataSets ? demand(walked, times) : [];
  const start = plan.calendar?.start ?? today;
  const late = mergedFindings(
    lateFindings(demands, start, plan.calendar?.deliveryDays ?? 0),
    fillingFindings(walked, times, start),
  );
  const told = moments.map((moment, i) => {
    return {
      after: moment.after,
      ...(moment.walked ? stepAnswer(moment.walked, dates?.steps[i - 1], late) : {}),
      capacities: moment.capacities,
      pools: poolsAt(moment, "TB").map(poolAnswer),
    };
  });
  const end = moments.at(-1)?.state.plan ?? plan;
  const fullOn = (days: number | null) => (days === null ? null : dayAfter(start, days));
  return {
    findings: boxFindings(plan).map(withPointer),
    pools: told[0]?.pools ?? [],
    moments: told,
    ...(dates ? { orders: dates.orders } : {}),
    ...(plan.dataSets
      ? {
          coverage: { now: coverage(plan, walked.day), after: coverage(end, walked.day) },
          backups: backupDemands(plan).map(({ backup, fullAfter }) => ({
            backup: backup.id,
            fullOn: fullOn(fullAfter),
          })),
          demand: demands.map(({ volume, fullWithPlan, fullWithoutPlan }) => ({
            volume: volume.id,
            fullOn: fullOn(fullWithPlan),
            fullWithoutPlanOn: fullOn(fullWithoutPlan),
          })),
        }
      : {}),
  };
}
