import type { Drive } from "../document/plan";
import { isGone } from "../drives/driveState";

/**
 * Whether a drive works and shows wear: marked so, or with sectors that are worn out or cannot be read.
 *
 * @example isWorn({ health: { state: "good", reallocatedSectors: 24 } }) // true
 */
export const isWorn = (drive: Pick<Drive, "health" | "state">): boolean => {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  return !isGone(drive) && state !== "failing" && (state === "watch" || reallocatedSectors + pendingSectors > 0);
};
