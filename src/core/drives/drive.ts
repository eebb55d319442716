import type { Drive } from "../document/plan";

/** The bay a drive is in, or null when it is on the shelf. */
export function bayOf(drive: Pick<Drive, "place">): number | null {
  return "bay" in drive.place ? drive.place.bay : null;
}
