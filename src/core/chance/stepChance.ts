import { rulesOfBox } from "../box/rulesOfBox";
import { usableOfPool } from "../box/figures";
import type { BoxRules, Plan, Pool } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { moduleOf } from "../steps/registry";
import type { Walk, WalkedMoment, WalkedStep } from "../walk/moment";
import { clausesOfBoth, clausesWithout, type ReadClause } from "./clauses";
import { type Conditions, powerCuts } from "./conditions";
import { HOURS_A_YEAR, type Point } from "./inputs";
import { type Chance, ended, NO_CHANCE } from "./chance";
import { chancesOfPool } from "./poolChance";
import { modelOfPool, type PoolModel } from "./poolModel";

/** How likely a step costs something of a pool, by cause. */
export interface StepChance extends Chance {
  /** The power is cut while all is rewritten, and that costs data. */
  powerCut: number;
}

/** How long ago all of a pool was read: hours, or null where it was at any time of the last round. */
type LastRead = number | null;

/** A pool while a step works on it: all of the step that its chance follows from, whatever the inputs. */
export interface Stretch {
  step: string;
  pool: string;
  /** Lacking what the step lacks, for the first hours; then whole. */
  parts: readonly { model: PoolModel; hours: number; lacks: boolean }[];
  /** What is read once, since nothing more is borne without the drives that the step lacks. */
  read: readonly ReadClause[];
  bytesOf: ReadonlyMap<string, number>;
  lastRead: LastRead;
  /** Whether data is lost by the step's own lack of drives. */
  lost: boolean;
  /** How a power cut would hurt what is rewritten; null where nothing is, or it does not. */
  rewrites: "level-change" | "widening" | null;
  hours: number;
}

const isChunked = (pool: Pool): boolean => pool.groups.some((group) => layoutOf(group.layout).chunked);

/** Sizes that differ by less than this share are the same. */
const SAME_SIZE = 0.01;

/** How a power cut would hurt a pool while a step works on it. */
function rewriteOf(walked: WalkedStep, before: Plan, after: Plan, pool: Pool, rules: BoxRules): Stretch["rewrites"] {
  const kind = moduleOf(walked.step).rewriteAs;
  const then = after.pools.find(({ id }) => id === pool.id);
  const members = new Set(pool.groups.flatMap((group) => group.drives));
  const isRewritten = walked.cost.work.some(
    ({ drive, reads, writes }) => members.has(drive) && reads > 0 && writes > 0,
  );
  // Chunks are copied before their old place is given up: a cut costs nothing of them.
  if (!kind || !then || !isRewritten || isChunked(pool)) return null;
  if (kind === "widening") return "widening";
  const [was, is] = [usableOfPool(before, pool, rules), usableOfPool(after, then, rules)];
  return Math.abs(is - was) <= SAME_SIZE * was ? "level-change" : "widening";
}

/** Kinds of work that read all of a pool. */
const READS_ALL: ReadonlySet<string> = new Set(["check", "rebuild"]);

const withClauses = (model: PoolModel, clauses: readonly ReadClause[]): PoolModel => {
  const named = new Set(clauses.flatMap(({ drives }) => drives));
  return { ...model, clauses, drives: model.drives.filter(({ id }) => named.has(id)) };
};

/** A pool while a step works on it, or on another. */
function stretchOf(
  { step, cost, from, to }: WalkedStep,
  pool: Pool,
  before: WalkedMoment,
  after: WalkedMoment,
  lastRead: LastRead,
  day: string | null,
): Stretch {
  const { plan } = before.state;
  const rules = rulesOfBox(plan);
  const model = modelOfPool(plan, pool, rules, day);
  const walked = after.walked as WalkedStep;
  const hours = to - from;
  const bytesOf = new Map(model.drives.map(({ id, bytes }) => [id, bytes]));
  const rewrites = rewriteOf(walked, plan, after.state.plan, pool, rules);
  const missing = new Set(cost.missing.filter((id) => bytesOf.has(id)));
  const without = clausesWithout(model.clauses, missing);
  const then = rewrites && after.state.plan.pools.find(({ id }) => id === pool.id);
  const both = then ? modelOfPool(after.state.plan, then, rulesOfBox(after.state.plan), day) : null;
  const whole = both
    ? {
        ...model,
        drives: [...model.drives, ...both.drives.filter(({ id }) => !bytesOf.has(id))],
        clauses: clausesOfBoth(model.clauses, both.clauses),
      }
    : model;
  const share = missing.size === 0 ? 0 : (cost.missingShare ?? 1);
  return {
    step: step.id,
    pool: pool.id,
    parts: [
      { model: withClauses(model, without.clauses), hours: hours * share, lacks: true },
      { model: whole, hours: hours * (1 - share), lacks: false },
    ].filter((part) => part.hours > 0),
    read: without.read,
    bytesOf,
    lastRead,
    lost: without.lost,
    rewrites,
    hours,
  };
}

/**
 * The pools of a plan while its steps work on them: what their chances follow from, whatever the inputs.
 *
 * @example stretchesOf(walk).filter(({ step }) => step === "s3")
 */
export function stretchesOf({ moments, day }: Walk): Stretch[] {
  const lastRead = new Map<string, LastRead>();
  const stretches: Stretch[] = [];
  moments.forEach((after, i) => {
    const before = moments[i - 1];
    const { walked } = after;
    if (!before || !walked?.done || walked.to <= walked.from) return;
    const kind = moduleOf(walked.step).boxWork(walked.step as never);
    const worked = new Set(walked.cost.work.map(({ drive }) => drive));
    for (const pool of before.state.plan.pools) {
      const stretch = stretchOf(walked, pool, before, after, lastRead.get(pool.id) ?? null, day);
      stretches.push(stretch);
      const isRead = kind !== null && READS_ALL.has(kind) && stretch.bytesOf.size > 0;
      if (isRead && [...stretch.bytesOf.keys()].some((id) => worked.has(id))) lastRead.set(pool.id, 0);
      else if (stretch.lastRead !== null) lastRead.set(pool.id, stretch.lastRead + stretch.hours);
    }
  });
  return stretches;
}

/** How likely something is unreadable of what a step reads once, since nothing more is borne. */
function damageOfReading({ read, bytesOf, lastRead }: Stretch, point: Point, { scrubHours }: Conditions): number {
  let sound = 1;
  for (const { drives, reads } of read) {
    const bytes = reads.reduce((sum, each) => sum + each, 0);
    const whole = drives.reduce((sum, id, i) => sum + (reads[i] ?? 0) / Math.max(1, bytesOf.get(id) ?? 1), 0);
    const x = whole * point.latent * (lastRead ?? scrubHours);
    sound *=
      Math.exp(-point.unreadable * bytes) * (lastRead === null ? (x < 1e-12 ? 1 : -Math.expm1(-x) / x) : Math.exp(-x));
  }
  return 1 - sound;
}

/** How likely a step costs something of a pool, at one value of each input. */
export function chanceOfStretch(stretch: Stretch, point: Point, conditions: Conditions): StepChance {
  if (stretch.lost) return { ...NO_CHANCE, rebuilding: 1, powerCut: 0 };
  const sum: StepChance = { ...NO_CHANCE, powerCut: 0 };
  sum.sector = damageOfReading(stretch, point, conditions);
  let sound = 1 - sum.sector;
  for (const { model, hours, lacks } of stretch.parts) {
    const over = { hours, hoursOfYear: HOURS_A_YEAR, stressed: true, scrubHours: roundOf(stretch, hours, conditions) };
    const chance = chancesOfPool(model, point, conditions, over).at(-1);
    if (!chance) continue;
    // While a step fills a drive, one that fails besides does so during a rebuild.
    sum[lacks ? "rebuilding" : "waiting"] += sound * chance.waiting;
    sum.rebuilding += sound * chance.rebuilding;
    sum.sector += sound * chance.sector;
    sum.cutOff += sound * chance.cutOff;
    sound *= 1 - ended(chance) - chance.cutOff;
  }
  if (stretch.rewrites) {
    const damage = stretch.rewrites === "level-change" ? point.damageOfLevelChange : point.damageOfWidening;
    sum.powerCut = sound * -Math.expm1((-powerCuts(point, conditions) / HOURS_A_YEAR) * stretch.hours * damage);
  }
  return sum;
}

/** How long sectors may have gone bad unseen while a step runs: since all was read last, or a round. */
const roundOf = ({ lastRead }: Stretch, hours: number, { scrubHours }: Conditions): number =>
  lastRead === null ? scrubHours : Math.min(scrubHours, lastRead + hours);

/** That a step costs something of a pool. */
export const endedInStep = (chance: StepChance): number => ended(chance) + chance.powerCut;
