import type { Sector } from "../document/plan";

/** The sector sizes that a plan knows, in bytes; with 520 and the like the drive keeps checksums beside the data. */
export const SECTORS: readonly Sector[] = [512, 520, 4096, 4160, 8192, 16384];

/** Whether a number of bytes is a sector size that a plan knows. `isSector(513)` is false. */
export const isSector = (bytes: number | null | undefined): bytes is Sector =>
  SECTORS.some((sector) => sector === bytes);
