import fc from "fast-check";
import { coefficient, recipesFor } from "./erasureCode";
import { inverseOf, times } from "./galois";

test("powers of 2 in GF(256) with 0x11d, as they are printed everywhere", () => {
  const powers = [1, 2, 4, 8, 16, 32, 64, 128, 29, 58, 116, 232, 205, 135, 19, 38, 76, 152, 45, 90];
  powers.reduce((before, power) => {
    expect(times(before, 2)).toBe(power);
    return power;
  });
  expect(inverseOf(2)).toBe(0x8e);
  expect(() => inverseOf(0)).toThrow("no inverse");
});

/** Multiplying bit by bit, as at school. */
function slowly(a: number, b: number): number {
  let [sum, shifted] = [0, a];
  for (let bit = 0; bit < 8; bit += 1) {
    if (b & (1 << bit)) sum ^= shifted;
    shifted = shifted & 0x80 ? (shifted << 1) ^ 0x11d : shifted << 1;
  }
  return sum;
}

test("every product, held against multiplying bit by bit; every byte but 0 times its inverse is 1", () => {
  for (let a = 0; a < 256; a += 1) for (let b = 0; b < 256; b += 1) expect(times(a, b)).toBe(slowly(a, b));
  for (let a = 1; a < 256; a += 1) expect(times(a, inverseOf(a))).toBe(1);
});

test("the first block of parity is the XOR; two more by hand for three blocks of data", () => {
  expect([0, 1, 2, 22].map((data) => coefficient(0, data))).toEqual([1, 1, 1, 1]);
  // 255·x + … : (255 ^ d) ÷ (254 ^ d), worked out by hand for d = 0: 255 ÷ 254.
  expect(times(coefficient(1, 0), 254)).toBe(255);
  expect(times(coefficient(2, 1), 253 ^ 1)).toBe(254);
});

test("any k of k + m blocks give back the others, and of fewer nothing is said", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 16 }),
      fc.integer({ min: 0, max: 8 }),
      fc.infiniteStream(fc.nat(255)),
      fc.nat(),
      (k, m, bytes, pick) => {
        const data = Array.from({ length: k }, () => bytes.next().value!);
        const stripe = [
          ...data,
          ...Array.from({ length: m }, (_, p) =>
            data.reduce((sum, byte, d) => sum ^ slowly(byte, coefficient(p, d)), 0),
          ),
        ];
        let missing = 0;
        for (let i = 0, left = m; i < k + m && left > 0; i += 1)
          if ((pick >> (i % 30)) & 1) {
            missing |= 1 << i;
            left -= 1;
          }
        const recipes = recipesFor(k, m, missing)!;
        for (const { of, from, by } of recipes) {
          expect(from.every((i) => !(missing & (1 << i)))).toBe(true);
          expect(from.reduce((sum, i, u) => sum ^ slowly(stripe[i]!, by[u]!), 0)).toBe(stripe[of]);
        }
        expect(recipes.length).toBe([...missing.toString(2)].filter((bit) => bit === "1").length);
        expect(recipesFor(k, m, 2 ** (m + 1) - 1)).toBeNull();
      },
    ),
    { numRuns: 500 },
  );
});
