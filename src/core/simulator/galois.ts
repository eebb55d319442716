// Arithmetic of single bytes in the field GF(256) with the polynomial x⁸ + x⁴ + x³ + x² + 1 (0x11d): adding is XOR.

const POLYNOMIAL = 0x11d;
const EXP = new Uint8Array(510);
const LOG = new Uint8Array(256);
for (let i = 0, x = 1; i < 255; i += 1) {
  EXP[i] = x;
  EXP[i + 255] = x;
  LOG[x] = i;
  x <<= 1;
  if (x > 255) x ^= POLYNOMIAL;
}

/** All products, at `(a << 8) | b`: what is worked out millions of times is looked up. */
export const PRODUCT = new Uint8Array(65_536);
for (let a = 1; a < 256; a += 1)
  for (let b = 1; b < 256; b += 1) PRODUCT[(a << 8) | b] = EXP[(LOG[a] ?? 0) + (LOG[b] ?? 0)] ?? 0;

/**
 * The product of two bytes.
 *
 * @example times(0x80, 2) // 0x1d: the polynomial without its highest power
 */
export const times = (a: number, b: number): number => PRODUCT[(a << 8) | b] ?? 0;

/**
 * The byte with which another gives 1.
 *
 * @throws RangeError for 0, which has none
 * @example inverseOf(2) // 0x8e
 */
export function inverseOf(a: number): number {
  if (a === 0) throw new RangeError("0 has no inverse.");
  return EXP[255 - (LOG[a] ?? 0)] ?? 0;
}
