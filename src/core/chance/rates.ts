import { type Chain, type End, ENDS, type Read } from "./chain";
import type { Component } from "./component";

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

/** What is read of a clause's drives, in bytes and as shares of drives. */
function amountOf({ clause, there }: Read, { clauses }: Component): { bytes: number; drives: number } {
  const { reads = [], shares = [] } = clauses[clause] ?? {};
  let [bytes, drives] = [0, 0];
  for (let i = 0; i < there.length; i += 1) {
    bytes += (there[i] as number) * (reads[i] as number);
    drives += (there[i] as number) * (shares[i] as number);
  }
  return { bytes, drives };
}

/** The rate of a change of state. */
function rateOf({ kind, from, class: of, count }: Chain["moves"][number], chain: Chain, pace: Pace): number {
  if (kind === "arrives") return count * pace.arrives;
  if (kind === "rebuilt") return count * (pace.rebuilds[of] ?? 0);
  return count * (pace.fails[of] ?? 0) * (pace.stressedAlways || chain.stressed[from] === 1 ? pace.stress : 1);
}

/** The rates of a chain at given inputs, for a component of its shape. */
export function rated(chain: Chain, component: Component, pace: Pace): Rated {
  const { states, moves, begins, from, entries } = chain;
  const ends = {
    waiting: new Float64Array(states),
    rebuilding: new Float64Array(states),
    sector: new Float64Array(states),
    cutOff: new Float64Array(states),
  };
  const out = new Float64Array(states);
  const rate = new Float64Array(from.length);
  const add = (list: Float64Array, at: number, value: number) => {
    list[at] = (list[at] as number) + value;
  };
  moves.forEach((move, i) => {
    const whole = rateOf(move, chain, pace);
    let goes = whole;
    for (const read of move.reads) goes *= 1 - damageWhenRead(amountOf(read, component), pace);
    add(ends.sector, move.from, whole - goes);
    add(out, move.from, whole);
    const end = ENDS[~move.to];
    if (end) add(ends[end], move.from, goes);
    else rate[entries[i] as number] = goes;
  });
  chain.bare.forEach((reads, state) => {
    for (const read of reads) {
      const goes = amountOf(read, component).drives * pace.latent;
      add(ends.sector, state, goes);
      add(out, state, goes);
    }
  });
  return { states, start: chain.start, begins, from, rate, out, ends };
}
