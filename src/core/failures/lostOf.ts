import type { Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import type { Fate } from "./fate";

/**
 * How much of the usable space of some bands is lost by a fate: all of it, what was on the lost drives where each has
 * files of its own, or nothing.
 *
 * @param usable what the bands hold for the owner, in bytes
 * @example lostOf(separateDrivesOf(4 TB, 8 TB), { kind: "partly-lost", lostDrives: ["d2"], … }, 12 TB) // 8 TB
 */
export function lostOf(bands: readonly Band[], fate: Fate, usable: Bytes): Bytes {
  if (fate.kind === "lost") return usable;
  if (fate.kind !== "partly-lost") return 0;
  const lost = new Set(fate.lostDrives);
  const bytes = bands
    .filter((band) => band.independent)
    .flatMap((band) => band.members)
    .reduce((sum, { drive, length }) => sum + (lost.has(drive) ? length : 0), 0);
  return Math.min(usable, bytes);
}
