import type { Bytes } from "../bytes/bytes";
import { nominalBytes, SOLD_GIGABYTES } from "../bytes/nominalBytes";
import type { ParsedSize } from "../bytes/parseSize";
import type { Medium } from "../document/plan";

/**
 * The bytes of a drive whose size was typed. A hard disk's label ("4 TB") stands for an exact number of sectors,
 * and so does the binary figure that a box shows for it ("3.64 TiB"), where just one sold size rounds to it.
 * A flash drive and a bare count of bytes are taken as typed.
 *
 * @returns bytes
 * @example driveBytes({ kind: "binary", bytes: 1_000_201_841_869, unit: "GiB", decimals: 2 }, "hdd")
 * // 1 000 204 886 016
 */
export function driveBytes(size: ParsedSize, medium: Medium): Bytes {
  if (size.kind === "bytes" || medium === "ssd") return size.bytes;
  if (size.kind === "decimal") {
    const gigabytes = size.bytes / 1e9;
    return Number.isInteger(gigabytes) && gigabytes >= 50 && gigabytes <= 100_000
      ? nominalBytes(gigabytes)
      : size.bytes;
  }
  const unit = size.unit === "TiB" ? 2 ** 40 : size.unit === "GiB" ? 2 ** 30 : 0;
  if (unit === 0 || size.decimals === 0) return size.bytes;
  const typed = (size.bytes / unit).toFixed(size.decimals);
  const fits = SOLD_GIGABYTES.map(nominalBytes).filter((bytes) => (bytes / unit).toFixed(size.decimals) === typed);
  return fits.length === 1 && fits[0] !== undefined ? fits[0] : size.bytes;
}
