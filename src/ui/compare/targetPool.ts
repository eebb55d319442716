import type { Plan } from "@/core/document/plan";

/**
 * The pool that a layout of some drives would be given to: the one that has most of them; null where none has any, so
 * that it becomes a new pool.
 */
export function targetPool(plan: Plan, drives: ReadonlySet<string>): string | null {
  const shares = plan.pools.map((pool) => ({
    id: pool.id,
    shared: pool.groups.flatMap((group) => group.drives).filter((drive) => drives.has(drive)).length,
  }));
  return (
    shares.reduce<{ id: string; shared: number } | null>(
      (best, each) => (each.shared > (best?.shared ?? 0) ? each : best),
      null,
    )?.id ?? null
  );
}
