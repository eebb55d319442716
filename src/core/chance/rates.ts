import { type Chain, type End, ENDS } from "./chain";

/** What of the inputs sets a chain's pace. All rates an hour. */
export interface Pace {
  /** How often a drive of each class fails. */
  fails: readonly number[];
  /** How often the rebuild of one of each class ends. */
  rebuilds: readonly number[];
  /** How often an outstanding replacement comes. */
  arrives: number;
  /** How many times more often drives fail while one is out. */
  stress: number;
  /** Whether that is so from the beginning: they are worked on. */
  stressedAlways: boolean;
  /** How likely a byte that is read cannot be. */
  unreadable: number;
  /** How often a sector of a drive goes bad unseen. */
  latent: number;
  /** Hours between two readings of all. */
  scrubHours: number;
}

/** A chain with its rates: where from, for each state, and how fast. */
export interface Rated {
  states: number;
  start: number;
  /** For each state, where the entries begin of those from which it is come to. */
  begins: Int32Array;
  from: Int32Array;
  rate: Float64Array;
  /** All that leaves a state, ends included. */
  out: Float64Array;
  /** By end, then by state. */
  ends: Readonly<Record<End, Float64Array>>;
}

/**
 * How likely it is that something of what has to be read cannot be: a byte by chance, or a sector that has gone bad
 * since all was read last, which was at any time of the last round.
 *
 * @param bytes that are read
 * @param drives of which so much is read, in whole drives
 * @example damageWhenRead({ bytes: 4e12, drives: 1 }, { unreadable: 8e-16, latent: 8e-6, scrubHours: 730 }) // 0.0061
 */
export function damageWhenRead(
  { bytes, drives }: { bytes: number; drives: number },
  { unreadable, latent, scrubHours }: Pick<Pace, "unreadable" | "latent" | "scrubHours">,
): number {
  return 1 - Math.exp(-unreadable * bytes) * meanOfRound(drives * latent * scrubHours);
}

/** The mean of e^(−x·t) over t from 0 to 1. */
const meanOfRound = (x: number): number => (x < 1e-12 ? 1 - x / 2 : -Math.expm1(-x) / x);

/** The rates of a chain at given inputs. */
export function rated(chain: Chain, pace: Pace): Rated {
  const { states, moves } = chain;
  const ends = {
    waiting: new Float64Array(states),
    rebuilding: new Float64Array(states),
    sector: new Float64Array(states),
    cutOff: new Float64Array(states),
  };
  const out = new Float64Array(states);
  const begins = new Int32Array(states + 1);
  for (const { to } of moves) if (to >= 0) begins[to + 1] = (begins[to + 1] ?? 0) + 1;
  for (let i = 0; i < states; i += 1) begins[i + 1] = (begins[i + 1] ?? 0) + (begins[i] ?? 0);
  const next = begins.slice();
  const from = new Int32Array(begins[states] ?? 0);
  const rate = new Float64Array(from.length);
  const add = (list: Float64Array, at: number, value: number) => (list[at] = (list[at] ?? 0) + value);
  for (const move of moves) {
    const whole = rateOf(move);
    let goes = whole;
    if (move.reads.length > 0) {
      const sound = move.reads.reduce((share, reads) => share * (1 - damageWhenRead(reads, pace)), 1);
      goes = whole * sound;
      add(ends.sector, move.from, whole - goes);
    }
    add(out, move.from, whole);
    const end = ENDS[~move.to];
    if (end) add(ends[end], move.from, goes);
    else {
      const at = next[move.to] ?? 0;
      next[move.to] = at + 1;
      from[at] = move.from;
      rate[at] = goes;
    }
  }
  chain.bare.forEach((drives, state) => {
    add(ends.sector, state, drives * pace.latent);
    add(out, state, drives * pace.latent);
  });
  return { states, start: chain.start, begins, from, rate, out, ends };

  function rateOf({ kind, from: state, class: of, count }: Chain["moves"][number]): number {
    if (kind === "arrives") return count * pace.arrives;
    if (kind === "rebuilt") return count * (pace.rebuilds[of] ?? 0);
    return count * (pace.fails[of] ?? 0) * (pace.stressedAlways || chain.stressed[state] === 1 ? pace.stress : 1);
  }
}
