import type { Bytes } from "./bytes";

const SECTOR = 512;

/**
 * The exact size of a hard disk that is sold with a decimal size.
 *
 * Up to and including 8 TB by IDEMA LBA1-03, `97 696 368 + 1 953 504 × (GB − 50)` sectors of 512 bytes;
 * above that by SFF-8447, the decimal size rounded up to a multiple of 2^21 sectors.
 *
 * @param gigabytes the size on the label in decimal gigabytes, a whole number from 50 upwards
 * @returns bytes
 * @throws RangeError when `gigabytes` is no whole number or is below 50, where neither document gives a size
 * @example nominalBytes(4000) // 4 000 787 030 016
 * @example nominalBytes(10_000) // 10 000 831 348 736
 */
export function nominalBytes(gigabytes: number): Bytes {
  if (!Number.isSafeInteger(gigabytes) || gigabytes < 50 || gigabytes > 1_000_000) {
    throw new RangeError(`No nominal size is defined for ${gigabytes} GB: it must be a whole number of 50 or more.`);
  }
  if (gigabytes <= 8000) return (97_696_368 + 1_953_504 * (gigabytes - 50)) * SECTOR;
  const step = 2 ** 21;
  return Math.ceil((gigabytes * 1e9) / SECTOR / step) * step * SECTOR;
}

/** The sizes, in decimal gigabytes, that hard disks are commonly sold in. */
export const SOLD_GIGABYTES: readonly number[] = [
  60, 80, 120, 160, 200, 250, 300, 320, 400, 500, 600, 640, 750, 900, 1000, 1200, 1500, 1800, 2000, 2400, 2500, 3000,
  4000, 5000, 6000, 8000, 10_000, 12_000, 14_000, 16_000, 18_000, 20_000, 22_000, 24_000, 26_000, 28_000, 30_000,
  32_000, 36_000,
];

const soldByBytes = new Map(SOLD_GIGABYTES.map((gigabytes) => [nominalBytes(gigabytes), gigabytes]));

/**
 * The decimal gigabytes that a drive of exactly this many bytes is sold as, or null when it is no standard size.
 *
 * @example soldAs(4_000_787_030_016) // 4000
 */
export function soldAs(bytes: Bytes): number | null {
  return soldByBytes.get(bytes) ?? null;
}
