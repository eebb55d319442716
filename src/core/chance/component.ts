import type { Bytes } from "../bytes/bytes";
import { groupedBy } from "../records/groupedBy";
import type { ReadClause } from "./clauses";

/** The drives in whose place a hot spare would go, by their ids. */
export type SpareServes = readonly string[];

/** What of a drive decides how likely it is to be one that costs data. */
export interface ChanceDrive {
  id: string;
  bytes: Bytes;
  /** How often it fails, an hour, in each year of the time that is asked about. */
  rates: readonly number[];
  /** How long it takes to fill a drive in its place, in hours. */
  rebuildHours: number;
  /** Drives of one batch may be bad ones together; null for one that is not of any. */
  batch: string | null;
  /** Whether it has failed or is missing at the beginning. */
  isGone: boolean;
}

/** Drives that nothing tells apart. */
export interface DriveClass {
  drives: readonly string[];
  rates: readonly number[];
  /** How often a rebuild ends, an hour. */
  rebuilds: number;
  spareFits: boolean;
  batch: string | null;
  /** How many of them are gone at the beginning. */
  gone: number;
}

/** A clause over classes: each with all of its drives. */
export interface ClassClause {
  classes: readonly number[];
  tolerance: number;
  /** What is read of a drive of each class, in bytes, in the order of `classes`. */
  reads: readonly Bytes[];
  /** The same as a share of the drive. */
  shares: readonly number[];
}

/** Drives that clauses, or a spare that they share, tie together: what befalls others does not matter to them. */
export interface Component {
  classes: readonly DriveClass[];
  clauses: readonly ClassClause[];
  spares: number;
  /**
   * Parts that only a shared spare ties together, by their classes: those of one list are alike, class for class, so
   * that it makes no difference which of them it is.
   */
  alike: readonly (readonly (readonly number[])[])[];
}

/** Drives whose rates and rebuilds differ by less than this, as logarithms, count as alike where it matters. */
const COARSE = 0.3;

/** From so many classes on, drives that are nearly alike are taken for alike: that costs at most 0.3 %. */
const MANY_CLASSES = 6;

const coarse = (value: number): number => Math.round(Math.log(value) / COARSE);

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** The sets of drives that clauses tie together, or anything else that drives have in common. */
function tied(drives: readonly ChanceDrive[], sets: readonly (readonly string[])[]): ChanceDrive[][] {
  const root = new Map(drives.map(({ id }) => [id, id]));
  const rootOf = (id: string): string => {
    let at = id;
    for (let up = root.get(at); up !== undefined && up !== at; up = root.get(at)) at = up;
    return at;
  };
  for (const [first, ...others] of sets)
    for (const other of others) if (first !== undefined) root.set(rootOf(other), rootOf(first));
  return [...groupedBy(drives, ({ id }) => rootOf(id)).values()];
}

function classOf(alike: readonly ChanceDrive[], served: ReadonlySet<string>, batches: ReadonlySet<string>): DriveClass {
  const [first] = alike as [ChanceDrive];
  return {
    drives: alike.map(({ id }) => id),
    rates: first.rates.map((_, year) => mean(alike.map(({ rates }) => rates[year] ?? 0))),
    rebuilds: 1 / mean(alike.map(({ rebuildHours }) => rebuildHours)),
    spareFits: served.has(first.id),
    batch: first.batch !== null && batches.has(first.batch) ? first.batch : null,
    gone: alike.filter(({ isGone }) => isGone).length,
  };
}

/** In which clauses a drive is, and what is read of it in each. */
interface InClauses {
  names: string;
  reads: readonly Bytes[];
}

/** The classes of a component: drives of the same clauses, rates, rebuilds, sizes, spares and batch. */
function classesOf(
  drives: readonly ChanceDrive[],
  clausesOf: ReadonlyMap<string, InClauses>,
  served: ReadonlySet<string>,
  batches: ReadonlySet<string>,
): DriveClass[] {
  const by = (isCoarse: boolean) => (drive: ChanceDrive) => {
    const [rate = 0] = drive.rates;
    const batch = drive.batch !== null && batches.has(drive.batch) ? drive.batch : "";
    const own = clausesOf.get(drive.id);
    const kind = [own?.names, served.has(drive.id), batch];
    return isCoarse
      ? // Of drives that are gone it matters what is left beside just them.
        [
          ...kind,
          drive.isGone ? drive.id : "",
          coarse(rate),
          coarse(drive.rebuildHours),
          own?.reads.map(coarse).join(),
        ].join("|")
      : [...kind, drive.rates.join(), drive.rebuildHours, drive.bytes, own?.reads.join()].join("|");
  };
  const exact = [...groupedBy(drives, by(false)).values()];
  const alike = exact.length < MANY_CLASSES ? exact : [...groupedBy(drives, by(true)).values()];
  return alike.map((each) => classOf(each, served, batches));
}

/** How many batches are told apart: the largest. */
const MOST_BATCHES = 3;

/** The batches of which several drives of a pool are, the largest first. */
export function batchesOf(drives: readonly ChanceDrive[]): string[] {
  const counts = [...groupedBy(drives, ({ batch }) => batch)].flatMap(([batch, of]) =>
    batch === null || of.length < 2 ? [] : [{ batch, count: of.length }],
  );
  return counts
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_BATCHES)
    .map(({ batch }) => batch);
}

/** Like parts of a component, by their classes. */
function alikeIn(component: Omit<Component, "alike">, parts: readonly ChanceDrive[][]): number[][][] {
  if (parts.length < 2) return [];
  const { classes, clauses } = component;
  const own = parts.map((part) => {
    const ids = new Set(part.map(({ id }) => id));
    return classes.flatMap(({ drives }, of) => (drives.some((id) => ids.has(id)) ? [of] : []));
  });
  const likenessOf = (part: readonly number[]) =>
    JSON.stringify([
      part.map((of) => classInShort(classes[of])),
      clauses
        .filter((clause) => clause.classes.some((of) => part.includes(of)))
        .map(({ classes: of, ...rest }) => [of.map((each) => part.indexOf(each)), rest]),
    ]);
  return [...groupedBy(own, likenessOf).values()].filter((each) => each.length > 1);
}

const classInShort = (of: DriveClass | undefined): unknown => of && { ...of, drives: of.drives.length };

/**
 * The drives of a pool in components, and their drives in classes. Where there are many different ones, those that are
 * nearly alike count as alike.
 *
 * @param spares the drives that each hot spare would stand in for
 * @param batches those that are told apart
 * @example componentsOf(sixDrivesInPairs, clauses, [], []).length // 3: nothing ties the pairs together
 */
export function componentsOf(
  drives: readonly ChanceDrive[],
  clauses: readonly ReadClause[],
  spares: readonly SpareServes[],
  batches: readonly string[],
): Component[] {
  const named = new Set(batches);
  const sets = clauses.map(({ drives: those }) => those);
  const parts = tied(drives, sets);
  return tied(drives, [...sets, ...spares]).map((members): Component => {
    const ids = new Set(members.map(({ id }) => id));
    const of = parts.filter((part) => part.some(({ id }) => ids.has(id)));
    const { count, served } = sparesOf(spares.filter((serves) => serves.some((id) => ids.has(id))));
    const own = clauses.filter(({ drives: those }) => those.some((id) => ids.has(id)));
    const classes = classesOf(members, clausesByDrive(members, own), served, named);
    const bytesOf = new Map(members.map(({ id, bytes }) => [id, Math.max(1, bytes)]));
    const classOfDrive = new Map(classes.flatMap((each, i) => each.drives.map((id) => [id, i] as const)));
    const component = {
      classes,
      spares: count,
      clauses: own.map((clause) => {
        const read = groupedBy(
          clause.drives.map((id, i) => ({ id, bytes: clause.reads[i] ?? 0 })),
          ({ id }) => classOfDrive.get(id) ?? 0,
        );
        return {
          classes: [...read.keys()],
          tolerance: clause.tolerance,
          reads: [...read.values()].map((each) => mean(each.map(({ bytes }) => bytes))),
          shares: [...read.values()].map((each) => mean(each.map(({ id, bytes }) => bytes / (bytesOf.get(id) ?? 1)))),
        };
      }),
    };
    return { ...component, alike: alikeIn(component, of) };
  });
}

/** The spares that can be counted on for most drives: those that fit fewer are left out. */
function sparesOf(spares: readonly SpareServes[]): { count: number; served: Set<string> } {
  const most = Math.max(0, ...spares.map((serves) => serves.length));
  const widest = spares.find((serves) => serves.length === most) ?? [];
  const served = new Set(widest);
  return { count: spares.filter((serves) => serves.filter((id) => served.has(id)).length === most).length, served };
}

/** In which clauses each drive is, and how much is read of it there. */
const clausesByDrive = (drives: readonly ChanceDrive[], clauses: readonly ReadClause[]): Map<string, InClauses> =>
  new Map(
    drives.map(({ id }) => {
      const own = clauses.flatMap(({ drives: of, reads }, i) => {
        const at = of.indexOf(id);
        return at < 0 ? [] : [{ i, bytes: reads[at] ?? 0 }];
      });
      return [id, { names: own.map(({ i }) => i).join(), reads: own.map(({ bytes }) => bytes) }];
    }),
  );

/** What tells a component from others, so that like ones are worked out once. */
export const likeness = ({ classes, clauses, spares }: Component): string =>
  JSON.stringify([classes.map(classInShort), clauses, spares]);

/** What of a component decides which states there are, and how they follow from each other; not how fast. */
export const shapeOf = ({ classes, clauses, spares, alike }: Component): string =>
  JSON.stringify([
    classes.map(({ drives, spareFits, gone }) => [drives.length, spareFits, gone]),
    clauses.map(({ classes: of, tolerance }) => [of, tolerance]),
    spares,
    alike,
  ]);
