import type { Plan } from "@/core/document/plan";
import { predict } from "@/core/plan/predict";
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

/** What `/api/predict` answers for a plan. */
export function predictionAnswer(plan: Plan) {
  const { moments } = predict(plan);
  const told = moments.map((moment) => ({ after: moment.after, pools: moment.pools.map(poolAnswer) }));
  return { pools: told[0]?.pools ?? [], moments: told };
}
