import { ARRIVES, type Chain, classOf, type End, ENDS, FAILS, type Read, REBUILT } from "./chain";
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

/** What is read of each clause while nothing has failed, and of one drive of each class of it. */
interface Amounts {
  bytes: number;
  drives: number;
  bytesOf: Float64Array;
  drivesOf: Float64Array;
}

const amountsOf = ({ classes, clauses }: Component): Amounts[] =>
  clauses.map((clause) => {
    const amounts: Amounts = {
      bytes: 0,
      drives: 0,
      bytesOf: new Float64Array(classes.length),
      drivesOf: new Float64Array(classes.length),
    };
    clause.classes.forEach((of, i) => {
      const count = classes[of]?.drives.length ?? 0;
      amounts.bytes += count * (amounts.bytesOf[of] = clause.reads[i] ?? 0);
      amounts.drives += count * (amounts.drivesOf[of] = clause.shares[i] ?? 0);
    });
    return amounts;
  });

/** What is read of the drives of a clause that have not failed, in bytes and as shares of drives. */
function amountOf({ clause, share, codes }: Read, amounts: readonly Amounts[]): { bytes: number; drives: number } {
  const all = amounts[clause] as Amounts;
  let { bytes, drives } = all;
  for (const code of codes) {
    bytes -= all.bytesOf[classOf(code)] as number;
    drives -= all.drivesOf[classOf(code)] as number;
  }
  // Nothing less than nothing is read where subtracting has left a rounding.
  return { bytes: Math.max(0, share * bytes), drives: Math.max(0, share * drives) };
}

/** What of a chain's rates follows from what has to be read, however often drives fail. */
export interface Reading {
  /** How likely nothing is unreadable of what a change of state reads, by move. */
  sound: Float64Array;
  /** How often a sector goes bad that is not borne, by state. */
  goesBad: Float64Array;
}

/** What of a component's data has to be read, and how likely it can be. */
export function readingOf(
  { moves, bare, states }: Chain,
  component: Component,
  pace: Pick<Pace, "unreadable" | "latent" | "scrubHours">,
): Reading {
  const amounts = amountsOf(component);
  const sound = new Float64Array(moves.from.length).fill(1);
  for (const { move, read } of moves.reads)
    for (const each of read)
      sound[move] = (sound[move] as number) * (1 - damageWhenRead(amountOf(each, amounts), pace));
  const goesBad = new Float64Array(states);
  bare.forEach((reads, state) => {
    for (const read of reads)
      goesBad[state] = (goesBad[state] as number) + amountOf(read, amounts).drives * pace.latent;
  });
  return { sound, goesBad };
}

/** How often one drive of each class does what a kind of move says. */
const ratesOf = (pace: Pace, kind: number): readonly number[] => (kind === REBUILT ? pace.rebuilds : pace.fails);

/**
 * The rates of a chain at given inputs, for a component of its shape.
 *
 * @param reading where it is known already: it is the same however often drives fail
 */
export function rated(
  chain: Chain,
  component: Component,
  pace: Pace,
  { sound, goesBad }: Reading = readingOf(chain, component, pace),
): Rated {
  const { states, moves, begins, from, entries } = chain;
  const ends = {
    waiting: new Float64Array(states),
    rebuilding: new Float64Array(states),
    sector: goesBad.slice(),
    cutOff: new Float64Array(states),
  };
  const lists = ENDS.map((end) => ends[end]);
  const out = goesBad.slice();
  const rate = new Float64Array(from.length);
  for (let i = 0; i < moves.from.length; i += 1) {
    const state = moves.from[i] as number;
    const kind = moves.kind[i] as number;
    const each = kind === ARRIVES ? pace.arrives : (ratesOf(pace, kind)[moves.class[i] as number] as number);
    const isStressed = kind === FAILS && (pace.stressedAlways || chain.stressed[state] === 1);
    const whole = each * (moves.count[i] as number) * (isStressed ? pace.stress : 1);
    const goes = whole * (sound[i] as number);
    ends.sector[state] = (ends.sector[state] as number) + whole - goes;
    out[state] = (out[state] as number) + whole;
    const to = moves.to[i] as number;
    if (to >= 0) rate[entries[i] as number] = goes;
    else {
      const end = lists[~to] as Float64Array;
      end[state] = (end[state] as number) + goes;
    }
  }
  return { states, start: chain.start, begins, from, rate, out, ends };
}
