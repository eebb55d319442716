import { type Chain, chainOf, ENDS } from "./chain";
import { type Chance, ended, NO_CHANCE } from "./chance";
import { groupedBy } from "../records/groupedBy";
import { batchesOf, type Component, componentsOf, likeness, shapeOf } from "./component";
import { arrivals, type Conditions } from "./conditions";
import { HOURS_A_YEAR, type Point } from "./inputs";
import { drivesAt, type PoolModel } from "./poolModel";
import { type Pace, rated, type Reading, readingOf } from "./rates";
import { atStart, spend, type Spent } from "./solver";

/** For how long, and how the drives are meanwhile. */
export interface Over {
  hours: number;
  /** Hours after which drives count as a year older. */
  hoursOfYear: number;
  /** Whether drives are under stress from the beginning, since the box works on them. */
  stressed: boolean;
  /** Hours between two readings of all that is stored. */
  scrubHours: number;
}

/** How much of the answer may be cut off. */
const MOST_CUT = 0.002;

/** Below so much it is shown as a bound, and looked at no more closely. */
const NEGLIGIBLE = 1e-6;

/** From such a tolerance on a bound will do. */
const WIDE = 3;

const ONE_IN = 0.1;

/** Good and bad lots of the batches of a pool, with how likely each mixture is; the mean of the rates is kept. */
function mixtures(batches: readonly string[], bad: number): { share: number; times: ReadonlyMap<string, number> }[] {
  const good = Math.max(0, 1 - ONE_IN * bad) / (1 - ONE_IN);
  let all = [{ share: 1, times: new Map<string, number>() }];
  if (bad === 1) return all;
  for (const batch of batches)
    all = all.flatMap(({ share, times }) => [
      { share: share * (1 - ONE_IN), times: new Map([...times, [batch, good]]) },
      { share: share * ONE_IN, times: new Map([...times, [batch, bad]]) },
    ]);
  return all;
}

/** Independent parts together: nothing is lost where none loses any. How it is lost follows from the hazards. */
function together(parts: readonly { chance: Chance; count: number }[]): Chance {
  const [only] = parts;
  if (parts.length === 1 && only?.count === 1) return only.chance;
  const sums = { ...NO_CHANCE };
  let [hazards, sure] = [0, false];
  for (const { chance, count } of parts) {
    const any = ended(chance) + chance.cutOff;
    if (any <= 0) continue;
    sure ||= any >= 1;
    const hazard = (any >= 1 ? SURE : -Math.log1p(-any)) * count;
    hazards += hazard;
    for (const end of ENDS) sums[end] += (hazard * chance[end]) / any;
  }
  if (hazards === 0) return sums;
  const share = (sure ? 1 : -Math.expm1(-hazards)) / hazards;
  for (const end of ENDS) sums[end] *= share;
  return sums;
}

/** The hazard of what has happened. */
const SURE = 50;

/** A component over some time: what had ended when each of its years had. */
function byYears(
  chain: Chain,
  component: Component,
  reading: Reading,
  pace: Omit<Pace, "fails" | "rebuilds">,
  times: ReadonlyMap<string, number>,
  over: Over,
): Chance[] {
  const { classes } = component;
  const chances: Chance[] = [];
  const rebuilds = classes.map((each) => each.rebuilds);
  let spent: Spent | null = null;
  const years = Math.max(1, Math.ceil(over.hours / over.hoursOfYear - 1e-9));
  for (let year = 0; year < years; year += 1) {
    const fails = classes.map(
      ({ rates, batch }) => (rates[year] ?? 0) * (batch === null ? 1 : (times.get(batch) ?? 1)),
    );
    const now = rated(chain, component, { ...pace, fails, rebuilds }, reading);
    spent = spend(now, spent ?? atStart(now), Math.min(over.hoursOfYear, over.hours - year * over.hoursOfYear));
    chances.push(spent.ends);
  }
  return chances;
}

/** The likely number of failed drives at once that have to be looked at. */
const firstMost = ({ clauses }: Component): number =>
  Math.min(WIDE, Math.max(1, ...clauses.map(({ tolerance }) => tolerance))) + (clauses.length > 1 ? 1 : 0);

/**
 * Chains, each made once: which drives fail at once is the same at all inputs, and for all components of one shape,
 * however large their drives are. The oldest go first.
 */
const known = new Map<string, Chain | null>();

/** So many are kept: a plan of many steps and its ranges need no more. */
const MOST_KNOWN = 60;

/** Forgets what is kept between figures: for measuring what the first of them takes. */
export const forgetChains = (): void => known.clear();

function chainOfShape(component: Component, most: number): Chain | null {
  const key = `${most} ${shapeOf(component)}`;
  const old = known.get(key);
  const chain = old === undefined ? chainOf(component, most) : old;
  known.delete(key);
  known.set(key, chain);
  const [first] = known.keys();
  if (known.size > MOST_KNOWN && first !== undefined) known.delete(first);
  return chain;
}

/** What is read by each chain of a component: the same whichever of its batches are bad. */
type Readings = Map<Chain, Reading>;

/** A component, looked at as closely as it takes. */
function closely(
  component: Component,
  readings: Readings,
  pace: Omit<Pace, "fails" | "rebuilds">,
  mixture: ReadonlyMap<string, number>,
  over: Over,
): Chance[] {
  const drives = component.classes.reduce((sum, { drives: of }) => sum + of.length, 0);
  let chances: Chance[] | null = null;
  for (let most = Math.min(drives, firstMost(component)); ; most += 1) {
    const chain = chainOfShape(component, most);
    if (!chain) break;
    const reading = readings.get(chain) ?? readingOf(chain, component, pace);
    readings.set(chain, reading);
    chances = byYears(chain, component, reading, pace, mixture, over);
    const last = chances.at(-1);
    if (!last || most >= drives || last.cutOff <= MOST_CUT * ended(last)) break;
    if (ended(last) + last.cutOff < NEGLIGIBLE) break;
  }
  return chances ?? [];
}

/** What sets the pace of every drive of a pool alike, at one value of each input. */
export const paceAt = (point: Point, conditions: Conditions, over: Over): Omit<Pace, "fails" | "rebuilds"> => ({
  arrives: arrivals(point, conditions),
  stress: point.stress,
  stressedAlways: over.stressed,
  unreadable: point.unreadable,
  latent: point.latent,
  scrubHours: over.scrubHours,
});

/**
 * How likely a pool loses something, by the causes of its drives alone, at one value of each input.
 *
 * @returns cumulated, at the end of each year of the time
 * @example chancesOfPool(mirrorOfTwo4TB, pointOf({}), conditions, overYears(1, conditions))[0]?.sector
 */
export function chancesOfPool(model: PoolModel, point: Point, conditions: Conditions, over: Over): Chance[] {
  const years = Math.max(1, Math.ceil(over.hours / over.hoursOfYear - 1e-9));
  const drives = drivesAt(model, point, years);
  const batches = point.badBatch === 1 ? [] : batchesOf(drives);
  const components = componentsOf(drives, model.clauses, model.spares, batches);
  const pace = paceAt(point, conditions, over);
  const mixed = mixtures(batches, point.badBatch);
  // What happens to each component, by mixture: like ones are worked out once.
  const kinds = [...groupedBy(components, likeness).values()].map((like) => {
    const [component] = like as [Component];
    const own = batchesIn(component);
    const readings: Readings = new Map();
    const known = new Map<string, Chance[]>();
    return {
      count: like.length,
      byMixture: mixed.map(({ times }) => {
        const key = own.map((batch) => times.get(batch)).join();
        const chances = known.get(key) ?? closely(component, readings, pace, times, over);
        known.set(key, chances);
        return chances;
      }),
    };
  });
  return Array.from({ length: years }, (_, year) => {
    const sum = { ...NO_CHANCE };
    mixed.forEach(({ share }, i) => {
      const parts = kinds.map(({ byMixture, count }) => ({ chance: byMixture[i]?.[year] ?? NO_CHANCE, count }));
      const all = together(parts);
      for (const end of ENDS) sum[end] += share * all[end];
    });
    return sum;
  });
}

/** The batches that a component has drives of. */
const batchesIn = ({ classes }: Component): string[] => [
  ...new Set(classes.flatMap(({ batch }) => (batch === null ? [] : [batch]))),
];

/** At rest for some years, with what is stored read again and again. */
export const overYears = (years: number, { scrubHours }: Conditions): Over => ({
  hours: years * HOURS_A_YEAR,
  hoursOfYear: HOURS_A_YEAR,
  stressed: false,
  scrubHours,
});
