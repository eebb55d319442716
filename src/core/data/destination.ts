import { storedIn } from "../box/capacities";
import type { Plan, Pool } from "../document/plan";
import { bytesOn, isOnGone } from "./backup";

/** What a backup step says where no backup of the plan would do. */
export const ANY_DESTINATION = "a destination of your choice";

/**
 * Where a pool is best backed up to: a backup of the plan that holds all of it, one that is elsewhere first.
 *
 * @returns the id of a backup, or words
 */
export function destinationOf(plan: Plan, pool: Pool): string {
  const needed = storedIn(pool);
  const fits = (plan.backups ?? []).filter(
    (backup) =>
      !isOnGone(backup, plan) &&
      (backup.bytes === undefined || backup.bytes >= Math.max(needed, bytesOn(backup, plan.dataSets ?? []))),
  );
  return (fits.find((backup) => backup.place === "elsewhere") ?? fits[0])?.id ?? ANY_DESTINATION;
}
