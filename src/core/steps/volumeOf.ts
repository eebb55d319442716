import { poolOf } from "../box/find";
import type { Plan, Volume } from "../document/plan";
import { against } from "./stepModule";

/** A volume of a pool at a moment. */
export const volumeOf = (plan: Plan, pool: string, id: string): Volume | undefined =>
  poolOf(plan, pool)?.volumes.find((volume) => volume.id === id);

/** What is said where it is not there. */
export const missingVolume = against("block", "no-such-volume", "The volume is not there at this moment.");
