import { coverage } from "@/core/data/coverage";
import type { Plan } from "@/core/document/plan";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { demand, lateFindings, timesByCalendar, timesByHours } from "@/core/schedule/demand";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import { dayAfter } from "@/core/time/days";
import { poolsAt } from "@/core/walk/poolsAt";
import { walkPlan } from "@/core/walk/walkPlan";

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
    findings: pool.findings.map(({ code, severity, message, drives, pointer }) => ({
      code,
      severity,
      message,
      drives,
      pointer,
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
  const late = lateFindings(demands, start, plan.calendar?.deliveryDays ?? 0);
  const told = moments.map((moment, i) => {
    const dated = dates?.steps[i - 1];
    return {
      after: moment.after,
      ...(moment.walked
        ? {
            done: moment.walked.done,
            does: moment.walked.does,
            hours: moment.walked.cost.hours,
            begins: moment.walked.from,
            ends: moment.walked.to,
            ...(dated ? { startsAt: isoOf(dated.start), endsAt: isoOf(dated.end), attention: dated.attention } : {}),
            erased: moment.walked.cost.erased,
            work: moment.walked.cost.work,
            online: moment.walked.cost.online,
            offlineHours: moment.walked.cost.offline,
            undoable: moment.walked.cost.undoable,
            exposure: moment.walked.exposure,
            findings: [...(late.get(moment.walked.step.id) ?? []), ...moment.walked.findings].map(
              ({ code, severity, message, drives }) => ({ code, severity, message, drives }),
            ),
          }
        : {}),
      capacities: moment.capacities,
      pools: poolsAt(moment, "TB").map(poolAnswer),
    };
  });
  const end = moments.at(-1)?.state.plan ?? plan;
  const fullOn = (days: number | null) => (days === null ? null : dayAfter(start, days));
  return {
    pools: told[0]?.pools ?? [],
    moments: told,
    ...(dates ? { orders: dates.orders } : {}),
    ...(plan.dataSets
      ? {
          coverage: { now: coverage(plan, walked.day), after: coverage(end, walked.day) },
          demand: demands.map(({ volume, fullWithPlan, fullWithoutPlan }) => ({
            volume: volume.id,
            fullOn: fullOn(fullWithPlan),
            fullWithoutPlanOn: fullOn(fullWithoutPlan),
          })),
        }
      : {}),
  };
}
