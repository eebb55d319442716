import type { ClassClause, Component } from "./component";

/**
 * Where a chain ends: one drive too many failed while others waited for a replacement, or while they were all being
 * rebuilt; a sector could not be read; or more drives had failed than it looks at.
 */
export const ENDS = ["waiting", "rebuilding", "sector", "cutOff"] as const;

/** A way in which a chain ends. */
export type End = (typeof ENDS)[number];

/** A clause of which all that is there is read: how many drives of each of its classes, or what part of them. */
export interface Read {
  clause: number;
  there: readonly number[];
}

/** How a state changes: a drive fails, a replacement comes, a rebuild ends. */
export const FAILS = 0;
export const ARRIVES = 1;
export const REBUILT = 2;

/** What of the changes of state is the same whatever the inputs are, each by its place in all of the lists. */
export interface Moves {
  from: Int32Array;
  /** A state, or an end as ~index into ENDS. */
  to: Int32Array;
  kind: Uint8Array;
  class: Uint16Array;
  /** How many drives, or which share of the arrivals, it is that do so. */
  count: Float64Array;
  /** Of those with which clauses can bear no further failure: what of their drives is read. */
  reads: readonly { move: number; read: readonly Read[] }[];
}

/**
 * A component as a chain of states: how many drives of each class have failed and wait for another, how many are being
 * rebuilt, and how many spares are left.
 */
export interface Chain {
  states: number;
  /** The state at the beginning, or the end that it begins in. */
  start: number;
  /** By state: whether a drive has failed, and the clauses that bear no further failure: their sectors count. */
  stressed: Uint8Array;
  bare: readonly (readonly Read[])[];
  moves: Moves;
  /** For each state, where the entries begin of those from which it is come to; which they are; each move's. */
  begins: Int32Array;
  from: Int32Array;
  entries: Int32Array;
}

/** A state as it is found: a code for each failed drive, in order, and what is left of the spares. */
interface Found {
  codes: readonly number[];
  spares: number;
}

const classOf = (code: number): number => code >> 1;
const isRebuilding = (code: number): boolean => (code & 1) === 1;
const codeOf = (of: number, rebuilding: boolean): number => of * 2 + (rebuilding ? 1 : 0);

const END = (end: End): number => ~ENDS.indexOf(end);

const ascending = (a: number, b: number): number => a - b;

const without = (codes: readonly number[], code: number): number[] => {
  const at = codes.indexOf(code);
  return [...codes.slice(0, at), ...codes.slice(at + 1)];
};

const countOf = (codes: readonly number[], which: (code: number) => boolean): number => codes.filter(which).length;

/** A clause, with which classes are in it by their numbers. */
interface Indexed extends ClassClause {
  index: number;
  has: Uint8Array;
}

/** How many drives of a clause have failed, and how many of them are being rebuilt. */
function failedOf({ has }: Indexed, codes: readonly number[]): { failed: number; rebuilding: number } {
  let [failed, rebuilding] = [0, 0];
  for (const code of codes)
    if (has[classOf(code)] === 1) {
      failed += 1;
      if (isRebuilding(code)) rebuilding += 1;
    }
  return { failed, rebuilding };
}

/** A drive that is being rebuilt needs only what is left of it, a half in the mean: so much less is read. */
const shareRead = (rebuilding: number): number => 1 / (1 + rebuilding);

/**
 * Blocks of a component that nothing ties together but a spare, and that are alike: which of them it is that lacks a
 * drive makes no difference, so their states are put in one order.
 */
const inOneOrder = (component: Component, codes: number[]): number[] => {
  for (const blocks of component.alike) {
    const states = blocks.map((classes) =>
      codes.flatMap((code) =>
        classes.includes(classOf(code)) ? [classes.indexOf(classOf(code)) * 2 + (code & 1)] : [],
      ),
    );
    if (states.every((each) => each.length === 0)) continue;
    const keys = states.map((each) => each.join()).sort();
    const others = codes.filter((code) => !blocks.some((classes) => classes.includes(classOf(code))));
    const moved = keys.flatMap((key, block) =>
      key === ""
        ? []
        : key.split(",").map((each) => codeOf(blocks[block]?.[Number(each) >> 1] ?? 0, (Number(each) & 1) === 1)),
    );
    codes = [...others, ...moved];
  }
  return codes.sort(ascending);
};

/** More states than this are not looked at: the chance is a bound then. */
const MOST_STATES = 20_000;

/** Changes of state while they are found. */
interface Made {
  from: number[];
  to: number[];
  kind: number[];
  class: number[];
  count: number[];
  reads: { move: number; read: readonly Read[] }[];
}

/** What is known of a chain while it is made. */
interface Making {
  component: Component;
  clauses: readonly Indexed[];
  most: number;
  found: Found[];
  places: Map<string, number>;
  moves: Made;
  bare: Read[][];
}

function placeOf({ component, found, places }: Making, codes: number[], spares: number): number {
  const ordered = inOneOrder(component, codes);
  const key = `${spares}:${ordered.join()}`;
  const known = places.get(key);
  if (known !== undefined) return known;
  places.set(key, found.length);
  found.push({ codes: ordered, spares });
  return found.length - 1;
}

/** What is read of the drives of a clause that have not failed. */
const readOf = (
  { component: { classes } }: Making,
  clause: Indexed,
  codes: readonly number[],
  share: number,
): Read => ({
  clause: clause.index,
  there: clause.classes.map(
    (of) => share * ((classes[of]?.drives.length ?? 0) - countOf(codes, (code) => classOf(code) === of)),
  ),
});

/** What the failure of one more drive of a class means for the clauses: data is lost, or some bear no more. */
function meets(making: Making, codes: readonly number[], of: number): { lost: boolean; reads: readonly Read[] } {
  const next = [...codes, codeOf(of, false)];
  const reads: Read[] = [];
  for (const clause of making.clauses) {
    if (clause.has[of] !== 1) continue;
    const { failed, rebuilding } = failedOf(clause, codes);
    if (failed + 1 > clause.tolerance) return { lost: true, reads: [] };
    if (failed + 1 === clause.tolerance) reads.push(readOf(making, clause, next, shareRead(rebuilding)));
  }
  return { lost: false, reads };
}

/** Adds a change of state. */
function put(
  moves: Made,
  [from, to, kind, of, count]: readonly [number, number, number, number, number],
  read: readonly Read[] = [],
): void {
  if (read.length > 0) moves.reads.push({ move: moves.from.length, read });
  moves.from.push(from);
  moves.to.push(to);
  moves.kind.push(kind);
  moves.class.push(of);
  moves.count.push(count);
}

/** What becomes of a state when one more drive of a class fails. */
function fails(making: Making, from: number, { codes, spares }: Found, of: number): void {
  const drives = making.component.classes[of];
  const there = (drives?.drives.length ?? 0) - countOf(codes, (code) => classOf(code) === of);
  if (!drives || there <= 0) return;
  const move = (to: number, reads: readonly Read[] = []) => put(making.moves, [from, to, FAILS, of, there], reads);
  const { lost, reads } = meets(making, codes, of);
  // Where nothing has failed before, nothing is being rebuilt.
  if (lost) return void move(END(codes.length > 0 && codes.every(isRebuilding) ? "rebuilding" : "waiting"));
  if (codes.length >= making.most) return void move(END("cutOff"));
  const takesSpare = spares > 0 && drives.spareFits;
  move(placeOf(making, [...codes, codeOf(of, takesSpare)], spares - (takesSpare ? 1 : 0)), reads);
}

/** What becomes of a state when a replacement comes: a drive that waits is filled, or a spare stands by again. */
function arrives(making: Making, from: number, { codes, spares }: Found): void {
  const waiting = codes.filter((code) => !isRebuilding(code));
  const outstanding = waiting.length + making.component.spares - spares;
  if (outstanding === 0) return;
  const move = (to: number, count: number) => put(making.moves, [from, to, ARRIVES, 0, count]);
  if (waiting.length === 0) move(placeOf(making, [...codes], spares + 1), outstanding);
  for (const code of new Set(waiting)) {
    const share = countOf(waiting, (each) => each === code) / waiting.length;
    move(placeOf(making, [...without(codes, code), code + 1], spares), outstanding * share);
  }
}

function rebuilt(making: Making, from: number, { codes, spares }: Found): void {
  for (const code of new Set(codes.filter(isRebuilding))) {
    const count = countOf(codes, (each) => each === code);
    const to = placeOf(making, without(codes, code), spares);
    put(making.moves, [from, to, REBUILT, classOf(code), count]);
  }
}

/** Follows all states from the first one on; false where there are too many. */
function follow(making: Making): boolean {
  const { found, component, clauses } = making;
  for (let from = 0; from < found.length; from += 1) {
    if (found.length > MOST_STATES) return false;
    const state = found[from];
    if (!state) continue;
    const bare: Read[] = [];
    for (const clause of clauses) {
      const { failed, rebuilding } = failedOf(clause, state.codes);
      if (failed === clause.tolerance) bare.push(readOf(making, clause, state.codes, shareRead(rebuilding)));
    }
    making.bare.push(bare);
    for (let of = 0; of < component.classes.length; of += 1) fails(making, from, state, of);
    arrives(making, from, state);
    rebuilt(making, from, state);
  }
  return true;
}

/** By failed drives, those that wait before those that are rebuilt: so states follow from each other. */
function inOrder(found: readonly Found[]): number[] {
  const keys = found.map(({ codes, spares }) => [codes.length, countOf(codes, isRebuilding), spares] as const);
  return found
    .map((_, i) => i)
    .sort((a, b) => {
      const [one, other] = [keys[a] ?? [0, 0, 0], keys[b] ?? [0, 0, 0]];
      return one[0] - other[0] || one[1] - other[1] || one[2] - other[2];
    });
}

/**
 * The chain of a component.
 *
 * @param most failed drives at once that it looks at; what goes beyond is cut off
 * @returns null where there are too many states
 * @example chainOf(mirrorOfTwo, 2)?.states // 3: whole, one waits, one is rebuilt
 */
export function chainOf(component: Component, most: number): Chain | null {
  const codes = component.classes.flatMap(({ gone }, of) => Array.from({ length: gone }, () => codeOf(of, false)));
  const clauses = component.clauses.map((clause, index): Indexed => {
    const has = new Uint8Array(component.classes.length);
    for (const of of clause.classes) has[of] = 1;
    return { ...clause, index, has };
  });
  const making: Making = {
    component,
    clauses,
    most: Math.max(most, codes.length),
    found: [],
    places: new Map(),
    moves: { from: [], to: [], kind: [], class: [], count: [], reads: [] },
    bare: [],
  };
  const isLost = clauses.some((clause) => failedOf(clause, codes).failed > clause.tolerance);
  const first = isLost ? END("waiting") : placeOf(making, codes, component.spares);
  if (!isLost && !follow(making)) return null;
  const { found, moves, bare } = making;
  const order = inOrder(found);
  const place = new Int32Array(found.length);
  order.forEach((old, now) => {
    place[old] = now;
  });
  const placed = (at: number): number => (at < 0 ? at : (place[at] as number));
  const all: Moves = {
    from: Int32Array.from(moves.from, placed),
    to: Int32Array.from(moves.to, placed),
    kind: Uint8Array.from(moves.kind),
    class: Uint16Array.from(moves.class),
    count: Float64Array.from(moves.count),
    reads: moves.reads,
  };
  return {
    states: found.length,
    start: placed(first),
    stressed: Uint8Array.from(order, (old) => ((found[old]?.codes.length ?? 0) > 0 ? 1 : 0)),
    bare: order.map((old) => bare[old] ?? []),
    moves: all,
    ...entriesOf(all, found.length),
  };
}

/** The moves that lead to states, by the states that they lead to. */
function entriesOf({ from: leaves, to }: Moves, states: number): Pick<Chain, "begins" | "from" | "entries"> {
  const begins = new Int32Array(states + 1);
  for (const state of to) if (state >= 0) begins[state + 1] = (begins[state + 1] as number) + 1;
  for (let i = 0; i < states; i += 1) begins[i + 1] = (begins[i + 1] as number) + (begins[i] as number);
  const next = begins.slice();
  const from = new Int32Array(begins[states] as number);
  const entries = new Int32Array(to.length).fill(-1);
  to.forEach((state, move) => {
    if (state < 0) return;
    const at = next[state] as number;
    next[state] = at + 1;
    from[at] = leaves[move] as number;
    entries[move] = at;
  });
  return { begins, from, entries };
}
