import { heightOf, type Band } from "../bands/band";
import { inverseOf, times } from "../simulator/galois";

// Real coding of real bytes, to hold the predictions about failures against.

/** How a scheme makes its n symbols of k: rows of coefficients. One parity is the XOR; more are Cauchy rows. */
function generator(band: Band): number[][] {
  const n = band.members.length;
  switch (band.scheme.kind) {
    case "stripe":
    case "single":
      return unit(n);
    case "mirror":
      return Array.from({ length: n }, () => [1]);
    case "striped-mirrors":
      throw new Error("Coded pair by pair.");
    case "chunk-parity":
    case "dedicated-parity":
    case "parity": {
      const { parity } = band.scheme;
      const k = n - parity;
      const rows = Array.from({ length: parity }, (_, p) =>
        Array.from({ length: k }, (_, d) => (parity === 1 ? 1 : inverseOf((128 + p) ^ d))),
      );
      return [...unit(k), ...rows];
    }
  }
}

const unit = (n: number) => Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => (i === j ? 1 : 0)));

const encode = (rows: number[][], data: number[]) =>
  rows.map((row) => row.reduce((sum, c, i) => sum ^ times(c, data[i]!), 0));

/** Solves rows · data = symbols by elimination; null when the rows do not determine the data. */
function solve(rows: number[][], symbols: number[], k: number): number[] | null {
  const m = rows.map((row, i) => [...row, symbols[i]!]);
  for (let col = 0; col < k; col += 1) {
    const pivot = m.findIndex((row, i) => i >= col && row[col] !== 0);
    if (pivot < 0) return null;
    [m[col], m[pivot]] = [m[pivot]!, m[col]!];
    const scale = inverseOf(m[col]![col]!);
    m[col] = m[col]!.map((c) => times(c, scale));
    m.forEach((row, i) => {
      const factor = row[col]!;
      if (i !== col && factor !== 0) m[i] = row.map((c, j) => c ^ times(factor, m[col]![j]!));
    });
  }
  return m.slice(0, k).map((row) => row[k]!);
}

/** Striped mirrors as the mirrors that they are made of: pairs, or neighbours round the ring. */
function pairsOf(band: Band): Band[] {
  if (band.scheme.kind !== "striped-mirrors") return [band];
  const { members } = band;
  const starts = members.length % 2 === 0 ? members.filter((_, i) => i % 2 === 0) : members;
  return starts.map((member) => ({
    ...band,
    scheme: { kind: "mirror" },
    members: [member, members[(members.indexOf(member) + 1) % members.length]!],
  }));
}

/**
 * Writes pseudo-random bytes on bands (one symbol per `unitBytes` of height), loses the failed drives, recovers what
 * can be recovered from the rest, and compares with what was written.
 *
 * @returns whether every byte came back
 */
export function survivesForReal(bands: readonly Band[], failed: ReadonlySet<string>, unitBytes: number): boolean {
  let seed = 1;
  const next = () => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) & 0xff;
  return bands.flatMap(pairsOf).every((band) => {
    const rows = generator(band);
    const n = band.members.length;
    const k = rows[0]!.length;
    return Array.from({ length: heightOf(band) / unitBytes }, (_, stripe) => {
      const data = Array.from({ length: k }, next);
      const symbols = encode(rows, data);
      // The members take turns, so that parity is on every drive.
      const onMember = (i: number) => (band.scheme.kind === "dedicated-parity" ? i : (i + stripe) % n);
      const left = symbols.flatMap((symbol, i) =>
        failed.has(band.members[onMember(i)]!.drive) ? [] : [{ row: rows[i]!, symbol }],
      );
      const recovered = solve(
        left.map((each) => each.row),
        left.map((each) => each.symbol),
        k,
      );
      return recovered !== null && recovered.every((byte, i) => byte === data[i]);
    }).every(Boolean);
  });
}
