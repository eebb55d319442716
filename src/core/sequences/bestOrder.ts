/** What the order of replacing drives depends on. `S` is the box after some of them. */
export interface OrderProblem<S> {
  /** How many drives are to be changed. */
  count: number;
  /** Places of one kind are the same for this question, and are taken in their order. */
  kindOf: (place: number) => string;
  start: S;
  /** Whether the box after some changes depends on the order in which they were made. */
  orderMatters?: boolean;
  /** Changes one more: the box then, and the space that is still missing meanwhile, in byte-hours. */
  change: (state: S, place: number) => { state: S; missing: number };
}

/** An order, and what it leaves to be wished for. */
export interface Order {
  places: number[];
  /**
   * Space that is not there yet, summed over the hours of the work: byte-hours. The smaller, the earlier space comes.
   */
  missing: number;
  /** Whether every order was weighed. */
  proved: boolean;
}

/** More states, or more orders, than this are not weighed. */
const MOST_STATES = 400;
/** So many of the most promising are then followed. */
const FOLLOWED = 4;
const MOST_ORDERS = 120;

/** How far one has come: how many of each kind have been changed, in which order, and what the box is then. */
interface Path<S> {
  counts: number[];
  places: number[];
  state: S;
  missing: number;
}

/**
 * The order in which space comes earliest: of all orders the one for which the space that is still missing, summed over
 * the time of the work, is least. What has been changed decides what the box is, whatever the order was, so it is
 * enough
 * to find the best way to each set of changed places: of places of one kind, to each number of them. Where it does not,
 * every order is weighed.
 *
 * @example bestOrder({ count: 3, … }).places // [2, 0, 1]
 */
export function bestOrder<S>(problem: OrderProblem<S>): Order {
  const all = Array.from({ length: problem.count }, (_, place) => place);
  // How many there are to weigh: orders of all, or sets of changed places.
  const allOrders = all.reduce((product, place) => product * (place + 1), 1);
  const byPath = problem.orderMatters === true && allOrders <= MOST_ORDERS;
  const kindOf = byPath ? String : problem.kindOf;
  const placesOf = [...new Set(all.map(kindOf))].map((kind) => all.filter((place) => kindOf(place) === kind));
  const sets = placesOf.reduce((product, places) => product * (places.length + 1), 1);
  const proved = byPath || (problem.orderMatters !== true && sets <= MOST_STATES);
  const onward = (path: Path<S>): Path<S>[] =>
    placesOf.flatMap((places, kind) => {
      const place = places[path.counts[kind] ?? 0];
      if (place === undefined) return [];
      const { state, missing } = problem.change(path.state, place);
      return [
        {
          counts: path.counts.map((count, k) => (k === kind ? count + 1 : count)),
          places: [...path.places, place],
          state,
          missing: path.missing + missing,
        },
      ];
    });
  const start: Path<S> = { counts: placesOf.map(() => 0), places: [], state: problem.start, missing: 0 };
  let front: Path<S>[] = [start];
  for (const _ of all) {
    const best = new Map<string, Path<S>>();
    for (const path of front.flatMap(onward)) {
      const key = byPath ? path.places.join(",") : path.counts.join(",");
      const old = best.get(key);
      if (!old || path.missing < old.missing) best.set(key, path);
    }
    const next = [...best.values()];
    // Where there are too many, only the most promising are followed.
    front = proved ? next : next.sort((a, b) => a.missing - b.missing).slice(0, FOLLOWED);
  }
  const end = front.reduce((best, path) => (path.missing < best.missing ? path : best));
  return { places: end.places, missing: end.missing, proved };
}
