import type { Finding } from "@/core/findings/finding";
import { fillingFindings, mergedFindings } from "@/core/schedule/backupsFilling";
import { type Demand, demand, lateFindings } from "@/core/schedule/demand";
import type { StepTimes } from "@/core/schedule/stepTimes";
import type { Walk } from "@/core/walk/moment";

/** When the volumes of a plan are full, and what comes too late for that, by step. */
export function dataOf(
  walked: Walk,
  times: readonly StepTimes[],
  start: string,
): { demands: Demand[]; late: ReadonlyMap<string, Finding[]> } {
  const { calendar, dataSets } = walked.plan;
  const demands = dataSets ? demand(walked, times) : [];
  const late = mergedFindings(
    lateFindings(demands, start, calendar?.deliveryDays ?? 0),
    fillingFindings(walked, times, start),
  );
  return { demands, late };
}
