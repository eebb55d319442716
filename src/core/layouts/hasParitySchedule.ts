import type { BoxRules, Pool } from "../document/plan";
import { layoutOf } from "./registry";

/**
 * Whether the parity of a pool is written by schedule.
 *
 * @example hasParitySchedule(poolWithParityDrive, { parityWrites: "by-schedule" }) // true
 */
export const hasParitySchedule = (pool: Pick<Pool, "groups">, rules: Pick<BoxRules, "parityWrites">): boolean =>
  rules.parityWrites === "by-schedule" &&
  pool.groups.some((group) => layoutOf(group.layout).dedicatedParity !== undefined);
