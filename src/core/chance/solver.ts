import { type End, ENDS } from "./chain";
import type { Rated } from "./rates";

/** How likely a chain is in each of its states, and how likely it has ended, in which way. */
export interface Spent {
  states: Float64Array;
  ends: Record<End, number>;
}

/** At the beginning: surely in one state, or at an end. */
export function atStart({ states, start }: Pick<Rated, "states" | "start">): Spent {
  const spent: Spent = { states: new Float64Array(states), ends: { waiting: 0, rebuilding: 0, sector: 0, cutOff: 0 } };
  const end = ENDS[~start];
  if (end) spent.ends[end] = 1;
  else spent.states[start] = 1;
  return spent;
}

/** Up to so many jumps they are counted one by one; beyond, the transform is quicker. */
const MOST_JUMPS = 150;

/**
 * Lets hours pass on a chain.
 *
 * @param hours at least 0
 * @example spend(rated(chain, pace), atStart(chain), 8766).ends.sector // in a year
 */
export function spend(chain: Rated, before: Spent, hours: number): Spent {
  if (chain.states === 0 || hours <= 0) return before;
  const fastest = chain.out.reduce((most, rate) => Math.max(most, rate), 0);
  if (fastest * hours < MOST_JUMPS) return byJumps(chain, before, hours, fastest);
  return byTransform(chain, before, hours) ?? byPieces(chain, before, hours, fastest);
}

/** Where drives fail about as fast as they are replaced nothing settles: jumps are counted until all has ended. */
function byPieces(chain: Rated, before: Spent, hours: number, fastest: number): Spent {
  const piece = MOST_JUMPS / 2 / fastest;
  let spent = before;
  for (let left = hours; left > 0; left -= piece) {
    spent = byJumps(chain, spent, Math.min(piece, left), fastest);
    if (spent.states.every((state) => state < 1e-15)) break;
  }
  return spent;
}

/** A chain as it jumps at the rate of its fastest state: by how much each state stays, and what comes to it. */
function jumpsOf({ rate, out }: Rated, fastest: number): { stays: Float64Array; comes: Float64Array } {
  return { stays: out.map((each) => 1 - each / fastest), comes: rate.map((each) => each / fastest) };
}

/** The states after one more jump. */
function jump(
  { states, begins, from }: Rated,
  { stays, comes }: ReturnType<typeof jumpsOf>,
  now: Float64Array,
  next: Float64Array,
): void {
  for (let i = 0; i < states; i += 1) {
    let sum = (now[i] as number) * (stays[i] as number);
    for (let at = begins[i] as number; at < (begins[i + 1] as number); at += 1)
      sum += (comes[at] as number) * (now[from[at] as number] as number);
    next[i] = sum;
  }
}

/**
 * Uniformisation: the chain jumps at the rate of its fastest state, and stays where it is the more often the slower its
 * own state is.
 */
function byJumps(chain: Rated, before: Spent, hours: number, fastest: number): Spent {
  const mean = fastest * hours;
  if (mean === 0) return before;
  const { states } = chain;
  const jumps = jumpsOf(chain, fastest);
  const after: Spent = { states: new Float64Array(states), ends: { ...before.ends } };
  // How long each state is stayed in, in jumps: what flows to an end at a jump is there if more jumps than that come.
  const stayed = new Float64Array(states);
  let [now, next] = [before.states.slice(), new Float64Array(states)];
  let weight = Math.exp(-mean);
  let above = 1;
  for (let count = 0; count <= LAST_JUMP; count += 1) {
    // Above the mean it is summed up, lest it cancel.
    above = count > mean ? tailOf(mean, count, weight) : above - weight;
    for (let i = 0; i < states; i += 1) {
      const chance = now[i] as number;
      after.states[i] = (after.states[i] as number) + weight * chance;
      stayed[i] = (stayed[i] as number) + above * chance;
    }
    if (count > mean && above < 1e-16) break;
    jump(chain, jumps, now, next);
    [now, next] = [next, now];
    weight *= mean / (count + 1);
  }
  for (const end of ENDS) {
    let flow = 0;
    for (let i = 0; i < states; i += 1) flow += (chain.ends[end][i] as number) * (stayed[i] as number);
    after.ends[end] += flow / fastest;
  }
  return after;
}

/** So many jumps do not come. */
const LAST_JUMP = 10 * MOST_JUMPS;

/** The share of a Poisson distribution above a value, from its weight there. */
function tailOf(mean: number, at: number, weight: number): number {
  let [sum, term] = [0, weight];
  for (let k = at + 1; k <= at + LAST_JUMP && term > sum * 1e-17; k += 1) {
    term *= mean / k;
    sum += term;
  }
  return sum;
}

/** Nodes of the contour, those of both halves counted. */
const NODES = 24;

/** Sweeps at most; about eight do where drives fail seldom. */
const MOST_SWEEPS = 400;

interface Complex {
  re: number;
  im: number;
}

/** A node of the modified Talbot contour, and how fast the contour runs there. */
function nodeAt(k: number): { z: Complex; dz: Complex } {
  const theta = ((2 * k + 1) * Math.PI) / NODES;
  const a = 0.6407 * theta;
  const cot = 1 / Math.tan(a);
  const sin = Math.sin(a);
  return {
    z: { re: NODES * (0.5017 * theta * cot - 0.6122), im: NODES * 0.2645 * theta },
    dz: { re: NODES * 0.5017 * (cot - a / (sin * sin)), im: NODES * 0.2645 },
  };
}

const times = (a: Complex, b: Complex): Complex => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re });

/**
 * The inverse Laplace transform on the modified Talbot contour, at each of its nodes by Gauss–Seidel; null where that
 * does not settle.
 */
function byTransform(chain: Rated, before: Spent, hours: number): Spent | null {
  const { states, ends } = chain;
  const after: Spent = { states: new Float64Array(states), ends: { ...before.ends } };
  for (let k = 0; k < NODES / 2; k += 1) {
    const { z, dz } = nodeAt(k);
    const s = { re: z.re / hours, im: z.im / hours };
    const settled = transformAt(chain, before.states, s);
    if (!settled) return null;
    const { re, im } = settled;
    const grows = Math.exp(z.re);
    const turn = times({ re: grows * Math.cos(z.im), im: grows * Math.sin(z.im) }, dz);
    const scale = 2 / (NODES * hours);
    for (let i = 0; i < states; i += 1)
      after.states[i] = (after.states[i] ?? 0) + scale * ((re[i] ?? 0) * turn.im + (im[i] ?? 0) * turn.re);
    // An end grows by what flows into it: its transform is that of the flow over s.
    const size = s.re * s.re + s.im * s.im;
    const over = times(turn, { re: s.re / size, im: -s.im / size });
    for (const end of ENDS) {
      const list = ends[end];
      const flow = { re: 0, im: 0 };
      for (let i = 0; i < states; i += 1) {
        const rate = list[i] ?? 0;
        if (rate === 0) continue;
        flow.re += rate * (re[i] ?? 0);
        flow.im += rate * (im[i] ?? 0);
      }
      after.ends[end] += scale * (flow.re * over.im + flow.im * over.re);
    }
  }
  for (let i = 0; i < states; i += 1) after.states[i] = Math.max(0, after.states[i] ?? 0);
  return after;
}

/** What flows into a state at a node, from the states as they are known by then. */
function flowInto({ begins, from, rate }: Rated, i: number, re: Float64Array, im: Float64Array): Complex {
  const flow = { re: 0, im: 0 };
  for (let at = begins[i] as number; at < (begins[i + 1] as number); at += 1) {
    const j = from[at] as number;
    flow.re += (rate[at] as number) * (re[j] as number);
    flow.im += (rate[at] as number) * (im[j] as number);
  }
  return flow;
}

/** The transform of the states at a node: solved in the order in which they follow from each other, again and again. */
function transformAt(chain: Rated, start: Float64Array, s: Complex): { re: Float64Array; im: Float64Array } | null {
  const re = new Float64Array(chain.states);
  const im = new Float64Array(chain.states);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep += 1) {
    let moved = 0;
    for (let i = 0; i < chain.states; i += 1) {
      const flow = flowInto(chain, i, re, im);
      const sum = { re: (start[i] as number) + flow.re, im: flow.im };
      const diagonal = s.re + (chain.out[i] as number);
      const length = diagonal * diagonal + s.im * s.im;
      const next = {
        re: (sum.re * diagonal + sum.im * s.im) / length,
        im: (sum.im * diagonal - sum.re * s.im) / length,
      };
      // Each state by its own size: what is rare has to be right as well.
      const size = Math.abs(next.re) + Math.abs(next.im);
      const by = Math.abs(next.re - (re[i] as number)) + Math.abs(next.im - (im[i] as number));
      if (by > moved * size) moved = by / size;
      re[i] = next.re;
      im[i] = next.im;
    }
    if (moved < 1e-13) return { re, im };
  }
  return null;
}
