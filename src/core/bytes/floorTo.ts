import type { Bytes } from "./bytes";

/**
 * The largest multiple of `unit` that is at most `bytes`; 0 for a negative `bytes`.
 *
 * @param bytes a count of bytes, which may be negative when reserves exceed a drive
 * @param unit the allocation unit in bytes, at least 1
 * @example floorTo(1_500_000, 1_048_576) // 1 048 576
 */
export function floorTo(bytes: number, unit: Bytes): Bytes {
  if (bytes <= 0) return 0;
  return bytes - (bytes % unit);
}
