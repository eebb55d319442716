import { rulesOfBox } from "../box/rulesOfBox";
import type { Plan } from "../document/plan";
import { Dice } from "../testing/likelyPlan";
import { LossSimulation, type SimulatedPool } from "../testing/lossSimulation";
import { reach, type Reached, steeredWalk } from "../testing/steeredPlan";
import { ended } from "./chance";
import type { Conditions } from "./conditions";
import { HOURS_A_YEAR, INPUT_NAMES, type InputName, type Point, pointOf } from "./inputs";
import { chancesOfPool, type Over, paceAt } from "./poolChance";
import { drivesAt, modelOfPool, type PoolModel } from "./poolModel";
import { chanceOfStretch, stretchesOf } from "./stepChance";

// The chain of states against what befalls pools drive by drive, drawn at random: two statements that share nothing but
// the inputs. In the soak of 300 pools and 60 plans and more.

const TIMES = Number(process.env.PROPERTY_TIMES ?? 1);
const SEED = Number(process.env.PROPERTY_SEED ?? 20_261_127) % 1_000_003;
const POOLS = 40 * Math.min(8, TIMES);
const PLANS = 8 * Math.min(8, TIMES);

/** One value of each input, anywhere in its range. */
function anyPoint(dice: Dice): Point {
  const expected = pointOf({});
  const moved = INPUT_NAMES.map((name): [InputName, number] => {
    const end = pointOf({}, { names: [name], end: dice.one(["low", "high"]) })[name];
    return [
      name,
      dice.below(2) === 0 ? expected[name] : expected[name] + (end - expected[name]) * (dice.below(11) / 10),
    ];
  });
  return Object.fromEntries(moved) as Point;
}

const anyConditions = (dice: Dice): Conditions => ({
  alerts: dice.below(3) > 0,
  scrubHours: dice.one([168, 730, 2190]),
  spareOnShelf: dice.below(2) === 0,
  ups: dice.below(2) === 0,
});

const simulated = (model: PoolModel, point: Point, conditions: Conditions, over: Over): SimulatedPool => ({
  drives: drivesAt(model, point, Math.ceil(over.hours / over.hoursOfYear)),
  clauses: model.clauses,
  spares: model.spares,
  ...paceAt(point, conditions, over),
  badBatch: point.badBatch,
  hours: over.hours,
  hoursOfYear: over.hoursOfYear,
});

/** Drives of some ages, models and healths, so that pools are not all of one kind. */
function aged(plan: Plan, dice: Dice): Plan {
  const drives = plan.drives.map((drive) => ({
    ...drive,
    purchased: dice.one(["2019", "2021-05", "2024-11-02", "2026"]),
    model: dice.one(["A", "B"]),
    health: dice.below(8) === 0 ? { ...drive.health, state: "watch" as const } : drive.health,
  }));
  return { ...plan, drives };
}

interface Held {
  what: string;
  z: number;
}

/** Whether a simulation says enough to be held against. */
const counts = (chance: number, cutOff: number, { chance: mean, error }: { chance: number; error: number }): boolean =>
  chance > 1e-13 && cutOff < 0.1 * chance && error < 0.25 * mean;

/** As many standard errors as they are apart lie as they should. */
function expectInLine(held: readonly Held[], meanWithin: number, [least, most]: readonly [number, number]): void {
  const mean = held.reduce((sum, { z }) => sum + z, 0) / held.length;
  const spread = Math.sqrt(held.reduce((sum, { z }) => sum + (z - mean) ** 2, 0) / (held.length - 1));
  const far = held.filter(({ z }) => Math.abs(z) > 4);
  process.stdout.write(`${held.length} held: mean of z ${mean.toFixed(3)}, standard deviation ${spread.toFixed(3)}\n`);
  expect(far).toEqual([]);
  expect(Math.abs(mean)).toBeLessThan(meanWithin);
  expect(spread).toBeGreaterThan(least);
  expect(spread).toBeLessThan(most);
}

test(`${POOLS} pools of all layouts: the chain and what is drawn at random come to the same`, () => {
  const reached: Reached = new Map();
  const held: Held[] = [];
  const others: string[] = [];
  for (let n = 0; held.length < POOLS && n < 4 * POOLS; n += 1) {
    const seed = SEED + n * 7919;
    const dice = new Dice(seed);
    const walk = steeredWalk(seed, 1, reached);
    const plan = aged(walk.moments.at(-1)!.state.plan, dice);
    const [pool] = plan.pools;
    const point = anyPoint(dice);
    const conditions = anyConditions(dice);
    if (!pool) continue;
    const model = modelOfPool(plan, pool, rulesOfBox(plan), "2026-11-27");
    const years = dice.one([0.25, 1, 1, 3]);
    const over = {
      hours: years * HOURS_A_YEAR,
      hoursOfYear: HOURS_A_YEAR,
      stressed: false,
      scrubHours: conditions.scrubHours,
    };
    const chance = chancesOfPool(model, point, conditions, over).at(-1)!;
    const drawn = new LossSimulation(simulated(model, point, conditions, over), seed).run({
      least: 2000,
      most: 20_000,
      error: 0.05,
    });
    const layout = pool.groups.map((group) => group.layout).join("+");
    if (!counts(ended(chance), chance.cutOff, drawn)) {
      others.push(`${layout}: ${ended(chance)}, cut off ${chance.cutOff}, drawn ${drawn.chance} ± ${drawn.error}`);
      continue;
    }
    reach(reached, `counted ${layout}`);
    held.push({
      what: `pool ${n}, ${layout}: ${ended(chance)} and ${drawn.chance} ± ${drawn.error}`,
      z: drawn.error === 0 ? 0 : (drawn.chance - ended(chance)) / drawn.error,
    });
  }
  process.stdout.write(`not counted: ${others.length}\n${others.join("\n")}\n`);
  expectInLine(held, TIMES > 1 ? 0.15 : 0.5, TIMES > 1 ? [0.85, 1.15] : [0.65, 1.35]);
}, 600_000);

test(`steps of ${PLANS} plans: the same while drives are missing, or all is rewritten`, () => {
  const reached: Reached = new Map();
  const held: Held[] = [];
  for (let n = 0; n < PLANS; n += 1) {
    const seed = SEED + 31 + n * 7919;
    const dice = new Dice(seed);
    const walk = steeredWalk(seed, 4, reached);
    const point = anyPoint(dice);
    const conditions = anyConditions(dice);
    for (const stretch of stretchesOf(walk)) {
      const chance = chanceOfStretch(stretch, point, conditions);
      // What the step reads once, and power cuts, are no matter of chains: both are taken off again.
      let [mean, variance, sound] = [0, 0, 1];
      const [part] = stretch.parts;
      if (stretch.lost || stretch.parts.length !== 1 || !part || part.hours < 1) continue;
      const { lastRead } = stretch;
      const over = {
        hours: part.hours,
        hoursOfYear: HOURS_A_YEAR,
        stressed: true,
        scrubHours: lastRead === null ? conditions.scrubHours : Math.min(conditions.scrubHours, lastRead + part.hours),
      };
      const pool = simulated(part.model, point, conditions, over);
      const drawn = new LossSimulation(pool, seed).run({ least: 2000, most: 20_000, error: 0.05 });
      for (const { drives, reads } of stretch.read) {
        const bytes = reads.reduce((sum, each) => sum + each, 0);
        const whole = drives.reduce((sum, id, i) => sum + reads[i]! / stretch.bytesOf.get(id)!, 0);
        const x = whole * point.latent * (lastRead ?? conditions.scrubHours);
        sound *= Math.exp(-point.unreadable * bytes) * (lastRead === null ? (1 - Math.exp(-x)) / x : Math.exp(-x));
      }
      mean = 1 - sound + sound * drawn.chance;
      variance = (sound * drawn.error) ** 2;
      if (!counts(ended(chance), chance.cutOff, { chance: mean, error: Math.sqrt(variance) })) continue;
      reach(reached, "counted");
      held.push({
        what: `plan ${n}, ${stretch.step}: ${ended(chance)} and ${mean} ± ${Math.sqrt(variance)}`,
        z: variance === 0 ? 0 : (mean - ended(chance)) / Math.sqrt(variance),
      });
    }
  }
  expect(held.length).toBeGreaterThan(PLANS);
  expectInLine(held, TIMES > 1 ? 0.15 : 0.5, TIMES > 1 ? [0.85, 1.15] : [0.65, 1.35]);
}, 600_000);
