import type { Bytes } from "../bytes/bytes";
import { GiB } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import type { Layout } from "../layouts/layout";
import { fewestDrives } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { groupValues, type GroupValue } from "./groupValues";

/** Some drives parted into groups, with those that are better left out. */
export interface Split {
  groups: { layout: LayoutId; drives: string[] }[];
  /** Ids of drives that would add nothing, or take space away. */
  leftOut: string[];
  usableBytes: Bytes;
}

/** The splits that are worth a look, and whether nothing better can exist. */
export interface SplitSearch {
  splits: Split[];
  /**
   * Whether nothing better can exist: every way was weighed, or could not be better. Beyond `MOST_EXACT` drives only
   * groups of neighbours in size are weighed.
   */
  exact: boolean;
}

/** Up to this many drives every way of parting them is weighed. */
export const MOST_EXACT = 12;

/** Which layouts the groups may have, and how many failed drives each group has to bear. */
interface Family {
  layouts: readonly Layout[];
  tolerance: number;
}

/** A sum over groups, compared in this order: more usable, fewer fatal sets, fewer drives. */
interface Sum {
  usable: number;
  fatal: number;
  drives: number;
}

const NOTHING: Sum = { usable: 0, fatal: 0, drives: 0 };
const better = (a: Sum, b: Sum) =>
  a.usable > b.usable || (a.usable === b.usable && (a.fatal < b.fatal || (a.fatal === b.fatal && a.drives < b.drives)));
const plus = (a: Sum, b: Sum): Sum => ({
  usable: a.usable + b.usable,
  fatal: a.fatal + b.fatal,
  drives: a.drives + b.drives,
});

/** What a group of some drives is worth to a family, and by which of its layouts. */
interface Worth extends Sum {
  layout: LayoutId;
}

/** What some drives come to under a layout. */
type Valuer = (layout: LayoutId) => GroupValue | null;

function worthOf(drives: number, family: Family, valueOf: Valuer): Worth | null {
  let best: Worth | null = null;
  for (const layout of family.layouts) {
    const value = valueOf(layout.id);
    if (!value || value.tolerance < family.tolerance || value.usableBytes === 0) continue;
    const worth = {
      usable: value.usableBytes,
      fatal: value.tolerance === family.tolerance ? value.fatalSets : 0,
      drives,
      layout: layout.id,
    };
    if (best === null || better(worth, best)) best = worth;
  }
  return best;
}

/** The families to search: each layout by itself, mirrors of three, and any mixture that bears one, two or three. */
function familiesOf(rules: BoxRules): Family[] {
  const offered = layouts.filter((layout) => layout.splits && rules.layouts.includes(layout.id));
  const nominal = (layout: Layout) => layout.nominalTolerance({});
  const copies = (layout: Layout) => layout.stripe({}).copies === "all";
  const alone = offered.map((layout): Family => ({ layouts: [layout], tolerance: nominal(layout) }));
  const threeCopies = offered.filter(copies).map((layout): Family => ({ layouts: [layout], tolerance: 2 }));
  // A hybrid is itself the best mixture of mirror and parity, band by band.
  const mixed = [1, 2, 3]
    .filter((tolerance) => !offered.some((layout) => layout.cutsAtSizes && nominal(layout) === tolerance))
    .map((tolerance): Family => ({
      layouts: offered.filter((layout) => copies(layout) || nominal(layout) >= tolerance),
      tolerance,
    }));
  return [...alone, ...threeCopies, ...mixed.filter((family) => family.layouts.length > 1)];
}

/** A way to part drives into a number of groups. */
type Found = { groups: { layout: LayoutId; drives: Drive[] }[]; sum: Sum };

/** Finds for 1, 2, … `counts` groups of a family the best way to part the drives. */
type Search = (family: Family, counts: number) => (Found | null)[];

/** The values of groups under layouts, worked out once for each set of drives and kept by its number. */
function valueTables(
  valuers: ReadonlyMap<LayoutId, (drives: readonly Drive[]) => GroupValue | null>,
  membersOf: (key: number) => Drive[],
): (key: number) => Valuer {
  const members: Drive[][] = [];
  const tables = new Map<LayoutId, (GroupValue | null | undefined)[]>([...valuers.keys()].map((id) => [id, []]));
  return (key) => (layout) => {
    const table = tables.get(layout);
    const known = table?.[key];
    if (known !== undefined) return known;
    const value = valuers.get(layout)?.((members[key] ??= membersOf(key))) ?? null;
    if (table) table[key] = value;
    return value;
  };
}

/**
 * The states of a search: how many drives of each size are there, as a number in mixed radix, since drives of one size
 * are interchangeable.
 */
interface States {
  count: number;
  radix: readonly number[];
  weight: readonly number[];
  /** The drives of each size, smallest size first. */
  ofSize: readonly (readonly Drive[])[];
  /** How many drives of each size a state has. */
  digitsOf: (state: number) => number[];
  /** How many drives a state has. */
  drives: Uint8Array;
  /** The state without its smallest drive. */
  withoutLowest: Uint16Array;
}

/** @param drives smallest first */
function statesOf(drives: readonly Drive[]): States {
  const sizes = [...new Set(drives.map((drive) => drive.bytes))];
  const ofSize = sizes.map((bytes) => drives.filter((drive) => drive.bytes === bytes));
  const radix = ofSize.map((each) => each.length + 1);
  const weight = radix.map((_, c) => radix.slice(0, c).reduce((product, r) => product * r, 1));
  const count = radix.reduce((product, r) => product * r, 1);
  const digitsOf = (state: number) => radix.map((r, c) => Math.floor(state / (weight[c] ?? 1)) % r);
  return {
    count,
    radix,
    weight,
    ofSize,
    digitsOf,
    drives: Uint8Array.from({ length: count }, (_, state) => digitsOf(state).reduce((sum, n) => sum + n, 0)),
    withoutLowest: Uint16Array.from(
      { length: count },
      (_, state) => state - (weight[digitsOf(state).findIndex((n) => n > 0)] ?? 0),
    ),
  };
}

/** The best sums that so many groups come to, for every state. */
interface Level {
  usable: Float64Array;
  fatal: Float64Array;
  used: Uint8Array;
}

/** What single groups are worth, and which of them each state can take. */
interface Groups {
  worths: readonly (Worth | null)[];
  usable: Float64Array;
  fatal: Float64Array;
  starts: Uint32Array;
  subs: Uint16Array;
}

/**
 * One group more: for each of some states the best of taking one of its groups, or of leaving its smallest drive out.
 */
function nextLevel(
  { count, drives, withoutLowest }: States,
  before: Level,
  groups: Groups,
  asked: readonly number[],
): { level: Level; take: Uint16Array } {
  const level = {
    usable: new Float64Array(count).fill(-Infinity),
    fatal: new Float64Array(count),
    used: new Uint8Array(count),
  };
  const take = new Uint16Array(count);
  const { starts, subs, usable: own, fatal: ownFatal } = groups;
  const { usable, fatal, used } = before;
  for (const state of asked) {
    const without = withoutLowest[state] as number;
    let bestUsable = level.usable[without] as number;
    let bestFatal = level.fatal[without] as number;
    let bestUsed = level.used[without] as number;
    let bestTake = 0;
    // The indices are all within the arrays; this is the innermost of millions of rounds.
    for (let i = starts[state] as number, end = starts[state + 1] as number; i < end; i += 1) {
      const sub = subs[i] as number;
      const sum = (own[sub] as number) + (usable[state - sub] as number);
      if (sum < bestUsable || sum === -Infinity) continue;
      const sumFatal = (ownFatal[sub] as number) + (fatal[state - sub] as number);
      const sumUsed = (drives[sub] as number) + (used[state - sub] as number);
      if (sum === bestUsable && (sumFatal > bestFatal || (sumFatal === bestFatal && sumUsed >= bestUsed))) continue;
      bestUsable = sum;
      bestFatal = sumFatal;
      bestUsed = sumUsed;
      bestTake = sub;
    }
    level.usable[state] = bestUsable;
    level.fatal[state] = bestFatal;
    level.used[state] = bestUsed;
    take[state] = bestTake;
  }
  return { level, take };
}

/** Follows what was taken from the state of all drives down, handing out drives of each size in their order. */
function traceBack(
  { count, radix, ofSize, digitsOf, withoutLowest }: States,
  taken: readonly Uint16Array[],
  worths: Groups["worths"],
): Found["groups"] {
  const next = radix.map(() => 0);
  const groups: Found["groups"] = [];
  let state = count - 1;
  let level = taken.length;
  while (level > 0 && state > 0) {
    const sub = taken[level - 1]?.[state] ?? 0;
    if (sub === 0) {
      state = withoutLowest[state] ?? 0;
      continue;
    }
    const members = digitsOf(sub).flatMap((n, c) => {
      const from = next[c] ?? 0;
      next[c] = from + n;
      return ofSize[c]?.slice(from, from + n) ?? [];
    });
    groups.push({ layout: worths[sub]?.layout ?? "raid1", drives: members });
    state -= sub;
    level -= 1;
  }
  return groups;
}

/**
 * Every way of parting the drives. The best for every state and number of groups follows from the states without one of
 * the groups that take its smallest drive, or without that drive.
 *
 * @param drives smallest first
 */
function exhaustive(drives: readonly Drive[], valuers: Parameters<typeof valueTables>[0]): Search {
  const states = statesOf(drives);
  const { count, radix, weight, ofSize, digitsOf, withoutLowest } = states;
  const membersOf = (state: number) => digitsOf(state).flatMap((n, c) => ofSize[c]?.slice(0, n) ?? []);
  const valueOf = valueTables(valuers, membersOf);
  const { starts, subs } = groupsOfStates(radix, weight, count);
  // What is asked for is what is best for all drives, or all but the smallest few; what a group of these leaves over
  // lacks the smallest drive, which the group has taken.
  const asked: number[] = [];
  for (let state = count - 1; state > 0; state = withoutLowest[state] ?? 0) asked.unshift(state);
  const isAsked = new Set(asked);
  const all = Array.from({ length: count - 1 }, (_, i) => i + 1).filter(
    (state) => isAsked.has(state) || state % (radix[0] ?? 1) < (radix[0] ?? 1) - 1,
  );
  return (family, most) => {
    const worths = Array.from({ length: count }, (_, state) =>
      state === 0 ? null : worthOf(states.drives[state] ?? 0, family, valueOf(state)),
    );
    const groups: Groups = {
      worths,
      usable: Float64Array.from(worths, (each) => each?.usable ?? -Infinity),
      fatal: Float64Array.from(worths, (each) => each?.fatal ?? 0),
      starts,
      subs,
    };
    let level: Level = {
      usable: new Float64Array(count),
      fatal: new Float64Array(count),
      used: new Uint8Array(count),
    };
    const taken: Uint16Array[] = [];
    const found: (Found | null)[] = [];
    for (let n = 0; n < most; n += 1) {
      const next = nextLevel(states, level, groups, n === most - 1 ? asked : all);
      level = next.level;
      taken.push(next.take);
      const whole = count - 1;
      const sum = { usable: level.usable[whole] ?? 0, fatal: level.fatal[whole] ?? 0, drives: level.used[whole] ?? 0 };
      found.push(sum.usable === -Infinity ? null : { sum, groups: traceBack(states, taken, worths) });
    }
    return found;
  };
}

/**
 * For every state the groups that take at least one of its smallest drives: `subs` from `starts[state]` to
 * `starts[state + 1]`.
 */
function groupsOfStates(
  radix: readonly number[],
  weight: readonly number[],
  states: number,
): { starts: Uint32Array; subs: Uint16Array } {
  const starts = new Uint32Array(states + 1);
  // A state with n drives of a size has n + 1 choices for it, so there are at most Π r(r + 1)/2 groups in all.
  const subs = new Uint16Array(radix.reduce((product, r) => product * ((r * (r + 1)) / 2), 1));
  let at = 0;
  for (let state = 1; state < states; state += 1) {
    starts[state] = at;
    let low = true;
    const from = at;
    for (let c = 0; c < radix.length; c += 1) {
      const n = Math.floor(state / (weight[c] ?? 1)) % (radix[c] ?? 1);
      if (n === 0) continue;
      const step = weight[c] ?? 1;
      if (low) {
        for (let k = 1; k <= n; k += 1) subs[at++] = k * step;
        low = false;
        continue;
      }
      const to = at;
      for (let k = 1; k <= n; k += 1) for (let i = from; i < to; i += 1) subs[at++] = (subs[i] ?? 0) + k * step;
    }
  }
  starts[states] = at;
  return { starts, subs };
}

/**
 * Groups of neighbours in size only, the smallest drives left out where that is better; see `neighboursSuffice`.
 *
 * @param drives smallest first
 */
function neighbours(drives: readonly Drive[], valuers: Parameters<typeof valueTables>[0]): Search {
  const n = drives.length;
  // The run from the `from`th largest drive up to the `to`th, as one number.
  const runOf = (from: number, to: number) => from * (n + 1) + to;
  const membersOf = (run: number) => drives.slice(n - (run % (n + 1)), n - Math.floor(run / (n + 1)));
  const valueOf = valueTables(valuers, membersOf);
  return (family, most) => {
    const worths = Array.from({ length: (n + 1) * (n + 1) }, (_, run) => {
      const length = (run % (n + 1)) - Math.floor(run / (n + 1));
      return length > 0 ? worthOf(length, family, valueOf(run)) : null;
    });
    let before: (Sum | null)[] = [NOTHING, ...Array.from({ length: n }, () => null)];
    const cuts: number[][] = [];
    return Array.from({ length: most }, (_, level): Found | null => {
      const cut: number[] = [];
      const best = before.map((_, to): Sum | null => {
        let sum: Sum | null = null;
        for (let start = 0; start < to; start += 1) {
          const rest = before[start];
          const own = worths[runOf(start, to)];
          if (!rest || !own) continue;
          const next = plus(own, rest);
          if (sum === null || better(next, sum)) {
            sum = next;
            cut[to] = start;
          }
        }
        return sum;
      });
      cuts.push(cut);
      before = best;
      const end = best.reduce((at, sum, to) => (sum && (at < 0 || better(sum, best[at] ?? NOTHING)) ? to : at), -1);
      const sum = best[end];
      if (!sum) return null;
      const groups: Found["groups"] = [];
      for (let at = end, l = level; l >= 0; l -= 1) {
        const start = cuts[l]?.[at] ?? 0;
        groups.push({ layout: worths[runOf(start, at)]?.layout ?? "raid1", drives: membersOf(runOf(start, at)) });
        at = start;
      }
      return { sum, groups };
    });
  };
}

/** From this size on the kernel's RAID driver keeps the same room for its metadata whatever the size. */
const EVEN_METADATA = 128 * GiB;

/**
 * Whether no split of a family is better than the best one into groups of neighbours in size. It is so where every
 * drive counts as large as the smallest and a larger smallest never holds less: put the groups of any split in the
 * order of their smallest drives, and give the largest drives to the first, the next to the second, and so on. Each
 * smallest can only rise, while the groups keep their sizes, and so what they bear. Likewise for a hybrid that bears
 * one
 * failure on a box without metadata: it holds the sum of its drives less the largest, and in the order of their largest
 * drives, giving the smallest drives to the first can only lower each largest.
 */
function neighboursSuffice(family: Family, drives: readonly Drive[], rules: BoxRules): boolean {
  if (
    rules.arrayFormat === "plain" &&
    family.layouts.every((layout) => layout.cutsAtSizes && layout.nominalTolerance({}) === 1)
  )
    return true;
  return (
    family.layouts.every((layout) => layout.countsSmallest) &&
    (rules.arrayFormat === "plain" || drives.every((drive) => roomOf(drive, rules).length >= EVEN_METADATA))
  );
}

/** What the best uniform splits hold, by what they bear and how many groups they have. */
function bestUniforms() {
  const best = new Map<string, Bytes>();
  const known = (tolerance: number, groups: number) => best.get(`${tolerance} ${groups}`) ?? 0;
  return {
    hold: (tolerance: number, groups: number, { sum }: Found) =>
      best.set(`${tolerance} ${groups}`, Math.max(known(tolerance, groups), sum.usable)),
    isBeaten: (tolerance: number, groups: number, { sum }: Found) => sum.usable > known(tolerance, groups),
  };
}

/** What was found, as it is told: drives by their ids, with those that are left out. */
function splitOf({ groups, sum }: Found, drives: readonly Drive[]): Split {
  const idsOf = (some: readonly Drive[]) => some.map((drive) => drive.id);
  const used = new Set(groups.flatMap((group) => idsOf(group.drives)));
  return {
    groups: groups.map((group) => ({ layout: group.layout, drives: idsOf(group.drives) })),
    leftOut: idsOf(drives.filter((drive) => !used.has(drive.id))),
    usableBytes: sum.usable,
  };
}

const uniform = (found: Found) => found.groups.every((group) => group.layout === found.groups[0]?.layout);

/**
 * The best ways to part drives into several groups, or to leave some out: for each layout that the box offers, and for
 * mixtures that bear one, two or three failures, and for every number of groups, the one that holds most; among equals
 * the one with the fewest ways to lose data with one failure more than it bears, then the one with the fewest drives.
 * Mixtures are named only where they hold more than every uniform split of as many groups.
 *
 * @param drives 1 to 24
 * @param most the largest number of groups
 * @param exhaustively whether every way is weighed where there are at most `MOST_EXACT` drives
 * @example bestSplits(drivesOfTB(0.5, 4, 4, 4), rules).splits[0]
 * // RAID 5 of the three 4 TB drives, the small one left out
 */
export function bestSplits(drives: readonly Drive[], rules: BoxRules, most = 8, exhaustively = true): SplitSearch {
  const rising = [...drives].sort((a, b) => a.bytes - b.bytes);
  const few = exhaustively && drives.length <= MOST_EXACT;
  const families = familiesOf(rules);
  const valuers = new Map(
    layouts.filter((layout) => layout.splits).map((layout) => [layout.id, groupValues(layout, rules)]),
  );
  const byNeighbours = neighbours(rising, valuers);
  const suffices = (family: Family) => neighboursSuffice(family, rising, rules);
  const byForce = few && !families.every(suffices) ? exhaustive(rising, valuers) : null;
  const splits: Split[] = [];
  const uniforms = bestUniforms();
  for (const family of families) {
    const alone = family.layouts.length === 1;
    const fewest = Math.min(
      ...family.layouts.map((layout) => Math.max(family.tolerance + 1, fewestDrives(layout, rules))),
    );
    const counts = Math.min(most, Math.floor(drives.length / fewest));
    const whole = worthOf(drives.length, family, (layout) => valuers.get(layout)?.(rising) ?? null);
    const search = suffices(family) ? byNeighbours : (byForce ?? byNeighbours);
    search(family, counts).forEach((found, i) => {
      if (!found || found.sum.usable === 0) return;
      if (alone)
        for (let tolerance = family.tolerance; tolerance > 0; tolerance -= 1) uniforms.hold(tolerance, i, found);
      // A single group of all drives is the layout itself.
      const isWhole = !alone || found.sum.drives === drives.length || found.sum.usable <= (whole?.usable ?? 0);
      if (i === 0 && isWhole) return;
      if (!alone && (uniform(found) || !uniforms.isBeaten(family.tolerance, i, found))) return;
      splits.push(splitOf(found, drives));
    });
  }
  return { splits, exact: few || families.every(suffices) };
}
