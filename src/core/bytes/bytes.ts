/** A count of bytes: a non-negative safe integer. Everything is computed in bytes, and only shown in other units. */
export type Bytes = number;

export const KiB = 2 ** 10;
export const MiB = 2 ** 20;
export const GiB = 2 ** 30;
export const TiB = 2 ** 40;
export const GB = 10 ** 9;
export const TB = 10 ** 12;

/** Whether a number can be a byte count. `isBytes(0.5)` is false, `isBytes(512)` is true. */
export function isBytes(value: number): boolean {
  return Number.isSafeInteger(value) && value >= 0;
}
