import type { Plan } from "@/core/document/plan";
import { poolsAt, walk } from "@/core/plan/walk";
import type { PoolPrediction } from "@/core/plan/predictPool";

/** A pool as `/api/predict` tells it: figures, bands, ledger, findings. All sizes in bytes. */
function poolAnswer(pool: PoolPrediction) {
  return {
    id: pool.id,
    name: pool.name,
    usableBytes: pool.usableBytes,
    tolerance: pool.tolerance,
    smallestFatalSet: pool.smallestFatalSet,
    survival: pool.survival,
    groups: pool.groups.map(({ id, layout, drives, usableBytes, tolerance, bands }) => ({ id, layout, drives, usableBytes, tolerance, bands })),
    volumes: pool.volumes,
    ledger: pool.ledger,
    findings: pool.findings.map(({ code, severity, message, drives, pointer }) => ({ code, severity, message, drives, pointer })),
  };
}

/** What `/api/predict` answers for a plan: its pools now, and every moment with what its step takes and risks. */
export function predictionAnswer(plan: Plan) {
  const { moments } = walk(plan);
  const told = moments.map((moment) => ({
    after: moment.after,
    ...(moment.walked
      ? {
          done: moment.walked.done,
          does: moment.walked.does,
          hours: moment.walked.cost.hours,
          begins: moment.walked.from,
          ends: moment.walked.to,
          erased: moment.walked.cost.erased,
          work: moment.walked.cost.work,
          online: moment.walked.cost.online,
          undoable: moment.walked.cost.undoable,
          exposure: moment.walked.exposure,
          findings: moment.walked.findings.map(({ code, severity, message, drives }) => ({ code, severity, message, drives })),
        }
      : {}),
    capacities: moment.capacities,
    pools: poolsAt(moment, "TB").map(poolAnswer),
  }));
  return { pools: told[0]?.pools ?? [], moments: told };
}
