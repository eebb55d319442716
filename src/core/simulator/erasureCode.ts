import { inverseOf, times } from "./galois";

// A systematic Reed–Solomon code for one stripe: k blocks of data, and m of parity of which the first is their XOR.
// Any k of the k + m give back the others.

/**
 * By what each block of data goes into a block of parity. The rows are those of a Cauchy matrix, each column divided
 * by its first entry, so that the first row is all ones; every square part of such a matrix can be inverted.
 *
 * @param parity which block of parity, from 0
 * @param data which block of data, from 0; together with the blocks of parity at most 256
 * @example coefficient(0, 3) // 1: the first block of parity is the XOR of all data
 */
export const coefficient = (parity: number, data: number): number =>
  times(255 ^ data, inverseOf((255 - parity) ^ data));

/** One block that is missing, as the sum of others, each times a factor. */
export interface Recipe {
  /** Which block of the stripe: data from 0, then parity. */
  of: number;
  /** From which blocks it is worked out, and by which factors. */
  from: readonly number[];
  by: readonly number[];
}

/** What block `row` of the stripe is made of, as factors of its k blocks of data. */
const rowOf = (row: number, k: number): number[] =>
  Array.from({ length: k }, (_, d) => (row < k ? Number(row === d) : coefficient(row - k, d)));

/** The inverse of a square matrix by elimination; null where it has none. */
function inverted(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => Number(i === j))]);
  for (let column = 0; column < n; column += 1) {
    const pivot = rows.findIndex((row, i) => i >= column && row[column] !== 0);
    const [a, b] = [rows[pivot], rows[column]];
    if (!a || !b) return null;
    const scale = inverseOf(a[column] ?? 0);
    const own = a.map((each) => times(each, scale));
    rows[pivot] = b;
    rows[column] = own;
    rows.forEach((row, i) => {
      const factor = row[column] ?? 0;
      if (i !== column && factor !== 0) rows[i] = row.map((each, j) => each ^ times(factor, own[j] ?? 0));
    });
  }
  return rows.map((row) => row.slice(n));
}

/**
 * How the missing blocks of a stripe are worked out from the first k that are there.
 *
 * @param k blocks of data
 * @param m blocks of parity
 * @param missing which blocks are not there, bit by bit: data from bit 0, then parity
 * @returns null where more are missing than there is parity
 * @example recipesFor(2, 1, 0b001) // [{ of: 0, from: [1, 2], by: [1, 1] }]
 */
export function recipesFor(k: number, m: number, missing: number): readonly Recipe[] | null {
  const there: number[] = [];
  const gone: number[] = [];
  for (let i = 0; i < k + m; i += 1) (missing & (1 << i) ? gone : there).push(i);
  if (gone.length > m) return null;
  const used = there.slice(0, k);
  const back = inverted(used.map((row) => rowOf(row, k)));
  if (!back) return null;
  return gone.map((of): Recipe => {
    const row = rowOf(of, k);
    const by = used.map((_, u) => row.reduce((sum, factor, d) => sum ^ times(factor, back[d]?.[u] ?? 0), 0));
    const kept = used.map((_, u) => u).filter((u) => by[u] !== 0);
    return { of, from: kept.map((u) => used[u] ?? 0), by: kept.map((u) => by[u] ?? 0) };
  });
}

const known = new Map<number, Map<number, readonly Recipe[] | null>>();

/** `recipesFor`, worked out once for all stripes of a shape. */
export function recipes(k: number, m: number, missing: number): readonly Recipe[] | null {
  const shape = k * 32 + m;
  let ofShape = known.get(shape);
  if (!ofShape) known.set(shape, (ofShape = new Map()));
  let found = ofShape.get(missing);
  if (found === undefined) ofShape.set(missing, (found = recipesFor(k, m, missing)));
  return found;
}
