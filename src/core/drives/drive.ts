import type { Bytes } from "../bytes/bytes";
import type { Drive } from "../document/plan";

/** The bay a drive is in, or null when it is on the shelf. */
export function bayOf(drive: Pick<Drive, "place">): number | null {
  return "bay" in drive.place ? drive.place.bay : null;
}

/**
 * How far a file system of its own on a drive reaches, in bytes: the whole drive, unless it has been made smaller.
 *
 * @example fileSystemOn({ bytes: 1_000_204_886_016 }) // 1 000 204 886 016
 */
export const fileSystemOn = ({ bytes, fileSystemBytes }: Pick<Drive, "bytes" | "fileSystemBytes">): Bytes =>
  Math.min(bytes, fileSystemBytes ?? bytes);
