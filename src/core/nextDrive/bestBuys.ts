import type { Bytes } from "../bytes/bytes";
import type { Drive, Plan, Pool, PricedDrive } from "../document/plan";
import { freeBays, usableWith, type Placed, type Placement } from "./placements";

/** One or two drives to buy, where they go, and what that brings. */
export interface Buy {
  drives: { item: PricedDrive; at: Placement }[];
  gainBytes: Bytes;
  price: number;
  /** Usable bytes gained for one unit of money. */
  bytesPerMoney: number;
}

/** The best drives to buy, with those that come next. */
export interface BestBuys {
  /** One drive, the best first. */
  one: Buy[];
  /** Two drives, the best first. */
  two: Buy[];
  /** How many ways were weighed, all that there are. */
  weighed: number;
}

/** How many are named, and how many are kept meanwhile, since a later one may make an earlier one idle. */
const NAMED = 4;
const KEPT = 24;

/** A place for a drive, with those that are the same: replacing drives of one size in one group brings the same. */
interface PlaceClass {
  places: Placement[];
  key: string;
}

const HEALTH = { failing: 0, watch: 1, good: 2 } as const;

/** The drive that had best go first: the one in the worst health, then the one in the first bay. */
const firstToGo = (a: Drive, b: Drive) =>
  HEALTH[a.health.state] - HEALTH[b.health.state] ||
  (b.health.reallocatedSectors ?? 0) - (a.health.reallocatedSectors ?? 0);

function placeClasses(plan: Plan, pool: Pool): PlaceClass[] {
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const bays = freeBays(plan);
  const replacing = pool.groups.flatMap((group) => {
    const members = group.drives.flatMap((id) => driveOf.get(id) ?? []);
    return [...new Set(members.map((drive) => drive.bytes))].map((bytes): PlaceClass => ({
      key: `replace ${group.id} ${bytes}`,
      places: members
        .filter((drive) => drive.bytes === bytes)
        .sort(firstToGo)
        .map((drive) => ({ kind: "replace", drive: drive.id })),
    }));
  });
  const adding = pool.groups.map((group): PlaceClass => ({
    key: `add ${group.id}`,
    places: Array.from({ length: Math.min(2, bays) }, () => ({ kind: "add", group: group.id })),
  }));
  const further: PlaceClass = {
    key: "further",
    places: bays >= 2 ? [{ kind: "further-group" }, { kind: "further-group" }] : [],
  };
  return [...replacing, ...adding, further].filter((each) => each.places.length > 0);
}

const placesOf = (buy: Buy) =>
  buy.drives
    .map(({ at }) => (at.kind === "replace" ? at.drive : at.kind))
    .sort()
    .join(" ");

const byWorth = (a: Buy, b: Buy) => b.bytesPerMoney - a.bytesPerMoney || b.gainBytes - a.gainBytes || a.price - b.price;

/** A drive of the list, in places of a kind. */
interface Option {
  item: PricedDrive;
  place: PlaceClass;
}

/** A runner-up that goes to the same places, gains no more and costs no less is none. */
const isIdle = (buy: Buy, other: Buy) =>
  placesOf(buy) === placesOf(other) && other.gainBytes >= buy.gainBytes && other.price <= buy.price;

/** The best so far, with one more weighed against them. */
function keep(list: Buy[], buy: Buy): Buy[] {
  if (buy.gainBytes <= 0 || list.some((other) => isIdle(buy, other))) return list;
  return [...list.filter((other) => !isIdle(other, buy)), buy].sort(byWorth).slice(0, KEPT);
}

function buyOf(drives: Buy["drives"], gainBytes: Bytes): Buy {
  const price = drives.reduce((sum, { item }) => sum + item.price, 0);
  return { drives, gainBytes, price, bytesPerMoney: price > 0 ? gainBytes / price : Infinity };
}

/** What drives in their places gain a pool; what comes to the same is worked out once. */
function gainsOf(plan: Plan, pool: Pool): (options: readonly Option[], drives: Buy["drives"]) => Bytes {
  const now = usableWith(plan, pool, []);
  const base = now.ok ? now.usableBytes : 0;
  const known = new Map<string, Bytes>();
  return (options, drives) => {
    const key = options.map(({ item, place }) => `${item.bytes} ${item.medium} ${place.key}`).join(" | ");
    const old = known.get(key);
    if (old !== undefined) return old;
    const placed = drives.map(({ item: { bytes, medium, bus }, at }): Placed => ({ bytes, medium, bus, at }));
    const outcome = usableWith(plan, pool, placed);
    const gain = outcome.ok ? outcome.usableBytes - base : 0;
    known.set(key, gain);
    return gain;
  };
}

/** Where two drives go together, or null where they cannot: a further group needs both. */
function placesTogether(first: Option, second: Option): [Placement, Placement] | null {
  const [at] = first.place.places;
  const next = second.place.places[second.place === first.place ? 1 : 0];
  const furthers = [first, second].filter(({ place }) => place.key === "further").length;
  return at && next && furthers !== 1 ? [at, next] : null;
}

/**
 * Weighs every way to buy one drive, and every way to buy two, of a price list for a pool, under the box's rules and
 * in its free bays, a place at a time so that the caller can stop. Places that come to the same are weighed once.
 *
 * @yields the share that is done, 0 to 1
 * @returns the best by usable bytes gained for the money; nothing that gains nothing
 */
export function* bestBuySteps(plan: Plan, pool: Pool, prices: readonly PricedDrive[]): Generator<number, BestBuys> {
  const gainOf = gainsOf(plan, pool);
  const classes = placeClasses(plan, pool);
  const single = prices.flatMap((item) => classes.map((place): Option => ({ item, place })));
  let one: Buy[] = [];
  let two: Buy[] = [];
  let weighed = 0;
  for (const [n, first] of single.entries()) {
    const [at] = first.place.places;
    if (at && at.kind !== "further-group") {
      weighed += 1;
      const drives = [{ item: first.item, at }];
      one = keep(one, buyOf(drives, gainOf([first], drives)));
    }
    for (const second of single.slice(n)) {
      const places = placesTogether(first, second);
      if (!places) continue;
      weighed += 1;
      const drives = [
        { item: first.item, at: places[0] },
        { item: second.item, at: places[1] },
      ];
      two = keep(two, buyOf(drives, gainOf([first, second], drives)));
    }
    yield (n + 1) / single.length;
  }
  return { one: one.slice(0, NAMED), two: two.slice(0, NAMED), weighed };
}

/**
 * The same at once.
 *
 * @example bestBuys(clinic, clinic.pools[0], EXAMPLE_PRICES).one[0] // a 12 TB drive in place of one of the 4 TB drives
 */
export function bestBuys(plan: Plan, pool: Pool, prices: readonly PricedDrive[]): BestBuys {
  const steps = bestBuySteps(plan, pool, prices);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
