import { ARRIVES, type Chain, type End, ENDS, FAILS, type Read, REBUILT } from "./chain";
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

/** How likely nothing is unreadable of what each change of state reads. */
function soundOf({ moves }: Chain, component: Component, pace: Pace): Float64Array {
  const sound = new Float64Array(moves.from.length).fill(1);
  for (const { move, read } of moves.reads)
    for (const each of read)
      sound[move] = (sound[move] as number) * (1 - damageWhenRead(amountOf(each, component), pace));
  return sound;
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
  const lists = ENDS.map((end) => ends[end]);
  const out = new Float64Array(states);
  const rate = new Float64Array(from.length);
  const add = (list: Float64Array, at: number, value: number) => {
    list[at] = (list[at] as number) + value;
  };
  const sound = soundOf(chain, component, pace);
  for (let i = 0; i < moves.from.length; i += 1) {
    const state = moves.from[i] as number;
    const of = moves.class[i] as number;
    const kind = moves.kind[i] as number;
    const each = kind === ARRIVES ? pace.arrives : ((kind === REBUILT ? pace.rebuilds : pace.fails)[of] as number);
    const isStressed = kind === FAILS && (pace.stressedAlways || chain.stressed[state] === 1);
    const whole = each * (moves.count[i] as number) * (isStressed ? pace.stress : 1);
    const goes = whole * (sound[i] as number);
    add(ends.sector, state, whole - goes);
    add(out, state, whole);
    const to = moves.to[i] as number;
    if (to < 0) add(lists[~to] as Float64Array, state, goes);
    else rate[entries[i] as number] = goes;
  }
  chain.bare.forEach((reads, state) => {
    for (const read of reads) {
      const goes = amountOf(read, component).drives * pace.latent;
      add(ends.sector, state, goes);
      add(out, state, goes);
    }
  });
  return { states, start: chain.start, begins, from, rate, out, ends };
}
