import type { ClassClause, Component } from "./component";

/**
 * Where a chain ends: one drive too many failed while others waited for a replacement, or while they were all being
 * rebuilt; a sector could not be read; or more drives had failed than it looks at.
 */
export const ENDS = ["waiting", "rebuilding", "sector", "cutOff"] as const;

/** A way in which a chain ends. */
export type End = (typeof ENDS)[number];

/** A clause of which all that is there is read, or a share of it: all drives but those of failed codes. */
export interface Read {
  clause: number;
  share: number;
  codes: readonly number[];
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

/** The class of a failed drive by its code. */
export const classOf = (code: number): number => code >> 1;
const isRebuilding = (code: number): boolean => (code & 1) === 1;
const codeOf = (of: number, rebuilding: boolean): number => of * 2 + (rebuilding ? 1 : 0);

const END = (end: End): number => ~ENDS.indexOf(end);

const ascending = (a: number, b: number): number => a - b;

const without = (codes: readonly number[], code: number): number[] => {
  const at = codes.indexOf(code);
  return [...codes.slice(0, at), ...codes.slice(at + 1)];
};

const countOf = (codes: readonly number[], which: (code: number) => boolean): number => codes.filter(which).length;

/** A clause with its number. */
interface Indexed extends ClassClause {
  index: number;
}

/** A state while it is followed: what is asked for each of its changes is counted once. */
interface Followed extends Found {
  from: number;
  /** By class, how many drives have not failed. */
  there: Int32Array;
  /** By clause, how many of its drives have failed, and how many of them are being rebuilt. */
  failed: Uint8Array;
  rebuilding: Uint8Array;
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
  /** By class, how many drives there are. */
  all: Int32Array;
  /** By class, the clauses that it is in. */
  clausesOf: readonly (readonly Indexed[])[];
  most: number;
  found: Found[];
  places: Map<string, number>;
  moves: Made;
  bare: (readonly Read[])[];
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

const NOTHING_READ: readonly Read[] = [];

/** What the failure of one more drive means for the clauses of its class: some bear no more; null if data is lost. */
function meets(
  { clausesOf }: Making,
  { failed: all, rebuilding }: Followed,
  of: number,
  codes: readonly number[],
): readonly Read[] | null {
  let reads: Read[] | null = null;
  for (const { index, tolerance } of clausesOf[of] ?? []) {
    const failed = (all[index] as number) + 1;
    if (failed > tolerance) return null;
    if (failed === tolerance)
      (reads ??= []).push({ clause: index, share: shareRead(rebuilding[index] as number), codes });
  }
  return reads ?? NOTHING_READ;
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
function fails(making: Making, state: Followed, of: number): void {
  const { from, codes, spares } = state;
  const there = state.there[of] as number;
  if (there <= 0) return;
  const move = (to: number, reads = NOTHING_READ) => put(making.moves, [from, to, FAILS, of, there], reads);
  const takesSpare = spares > 0 && (making.component.classes[of]?.spareFits ?? false);
  const next = [...codes, codeOf(of, takesSpare)];
  const reads = meets(making, state, of, next);
  // Where nothing has failed before, nothing is being rebuilt.
  if (!reads) return void move(END(codes.length > 0 && codes.every(isRebuilding) ? "rebuilding" : "waiting"));
  if (codes.length >= making.most) return void move(END("cutOff"));
  move(placeOf(making, next, spares - (takesSpare ? 1 : 0)), reads);
}

/** What becomes of a state when a replacement comes: a drive that waits is filled, or a spare stands by again. */
function arrives(making: Making, { from, codes, spares }: Followed): void {
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

function rebuilt(making: Making, { from, codes, spares }: Followed): void {
  for (const code of new Set(codes.filter(isRebuilding))) {
    const count = countOf(codes, (each) => each === code);
    const to = placeOf(making, without(codes, code), spares);
    put(making.moves, [from, to, REBUILT, classOf(code), count]);
  }
}

function followed({ all, clauses, clausesOf }: Making, from: number, { codes, spares }: Found): Followed {
  const there = all.slice();
  const failed = new Uint8Array(clauses.length);
  const rebuilding = new Uint8Array(clauses.length);
  for (const code of codes) {
    const of = classOf(code);
    there[of] = (there[of] as number) - 1;
    for (const { index } of clausesOf[of] ?? []) {
      failed[index] = (failed[index] as number) + 1;
      if (isRebuilding(code)) rebuilding[index] = (rebuilding[index] as number) + 1;
    }
  }
  return { codes, spares, from, there, failed, rebuilding };
}

/** The clauses of a state that bear no further failure: what of them is read. */
function bareOf({ clauses }: Making, { failed, rebuilding, codes }: Followed): readonly Read[] {
  let reads: Read[] | null = null;
  for (const { index, tolerance } of clauses)
    if (failed[index] === tolerance)
      (reads ??= []).push({ clause: index, share: shareRead(rebuilding[index] as number), codes });
  return reads ?? NOTHING_READ;
}

/** Follows all states from the first one on; false where there are too many. */
function follow(making: Making): boolean {
  const { found, component } = making;
  for (let from = 0; from < found.length; from += 1) {
    if (found.length > MOST_STATES) return false;
    const state = followed(making, from, found[from] as Found);
    making.bare.push(bareOf(making, state));
    for (let of = 0; of < component.classes.length; of += 1) fails(making, state, of);
    arrives(making, state);
    rebuilt(making, state);
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
  const clauses = component.clauses.map((clause, index): Indexed => ({ ...clause, index }));
  const clausesOf: Indexed[][] = component.classes.map(() => []);
  for (const clause of clauses) for (const of of clause.classes) clausesOf[of]?.push(clause);
  const making: Making = {
    component,
    clauses,
    all: Int32Array.from(component.classes.map(({ drives }) => drives.length)),
    clausesOf,
    most: Math.max(most, codes.length),
    found: [],
    places: new Map(),
    moves: { from: [], to: [], kind: [], class: [], count: [], reads: [] },
    bare: [],
  };
  const { failed } = followed(making, 0, { codes, spares: 0 });
  const isLost = clauses.some(({ index, tolerance }) => (failed[index] as number) > tolerance);
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
    from: Int32Array.from(moves.from).map(placed),
    to: Int32Array.from(moves.to).map(placed),
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
