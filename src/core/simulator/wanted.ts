/**
 * The byte that block `at` of some data ought to hold. It depends on the address, so that a block that is lost, left
 * behind or mixed up with another is noticed when it is read back.
 *
 * @param data which data: a number of its own for whatever is addressed from 0 by itself
 * @param at the block of it
 * @example wanted(7, 0) === wanted(7, 1) // false
 */
export function wanted(data: number, at: number): number {
  let x = Math.imul(at + 1, 0x9e3779b1) ^ Math.imul(data + 1, 0x85ebca6b);
  x ^= x >>> 15;
  return (Math.imul(x, 0x2c1b3c6d) >>> 21) & 0xff;
}
