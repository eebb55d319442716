import type { StepKind } from "../document/plan";
import { layouts } from "../layouts/registry";
import { ruleSets } from "../rules/ruleSets";
import { stepModules } from "../steps/registry";
import { holdAgainst } from "../testing/agreement";
import { Dice } from "../testing/likelyPlan";
import { LAWS } from "../testing/mishapLaws";
import { reach, steeredWalk, type Reached } from "../testing/steeredPlan";
import type { Walk } from "../walk/moment";
import { MISHAPS } from "./mishaps";
import { Practice } from "./practice";

// The reason for the simulated box: it and the prediction, which share nothing that predicts, say the same of plans of
// every layout and kind of box, and of what befalls them. In the soak of 2,000 plans and more.

const PLANS = 150 * Math.min(14, Number(process.env.PROPERTY_TIMES ?? 1));
const SEED = Number(process.env.PROPERTY_SEED ?? 20_261_126) % 1_000_003;
const STEPS = 8;
const LEAST = 20;

/** A mishap before each step, of those that have befallen least. */
function mishapsAlong(walk: Walk, seed: number, reached: Reached): string[] {
  const practice = Practice.of(walk.plan, { blocks: 300, seed });
  const dice = new Dice(seed);
  const differences: string[] = [];
  for (const [i, next] of walk.moments.entries()) {
    const moment = walk.moments[i - 1];
    if (!moment || !next.walked?.done) continue;
    const { step } = next.walked;
    let befallen = false;
    for (const kind of [...MISHAPS].sort((a, b) => (reached.get(a) ?? 0) - (reached.get(b) ?? 0))) {
      const differs = !befallen ? LAWS[kind]({ practice, moment, next, step, dice, seed }) : null;
      if (!differs) continue;
      reach(reached, kind);
      befallen = true;
      differences.push(...differs.map((what) => `${kind} before ${JSON.stringify(step)}: ${what}`));
    }
    if (!practice.do(step)) break;
  }
  return differences;
}

test(`${PLANS} plans: sizes, hours, erased drives, which drives may be lost, and what mishaps take`, () => {
  const reached: Reached = new Map();
  const along: Reached = new Map();
  for (let n = 0; n < PLANS; n += 1) {
    const seed = SEED + n * 7919;
    const walk = steeredWalk(seed, STEPS, reached);
    const held = holdAgainst(walk, 1024, seed);
    const differences = [...held.differences, ...mishapsAlong(walk, seed, along)];
    expect(differences.map((what) => `plan ${n}, seed ${seed}, ${walk.plan.box.rules.set}: ${what}`)).toEqual([]);
    held.steps.forEach((kind) => reach(along, kind));
    for (const { walked, state } of walk.moments)
      if (!walked || walked.done)
        for (const layout of new Set(state.plan.pools.flatMap(({ groups }) => groups.map((group) => group.layout))))
          reach(along, layout);
    reach(along, walk.plan.box.rules.set);
    for (const { walked } of walk.moments) if (walked) reach(along, walked.done ? "carried out" : "not carried out");
  }
  const kinds = Object.keys(stepModules) as StepKind[];
  const count = (all: readonly string[]) => all.map((each) => `${each} ${along.get(each) ?? 0}`).join(", ");
  process.stdout.write(
    `${PLANS} plans on the simulated box; steps carried out: ${along.get("carried out")}, not: ` +
      `${along.get("not carried out") ?? 0}\n  layouts, at moments: ${count(layouts.map(({ id }) => id))}\n` +
      `  steps: ${count(kinds)}\n  mishaps: ${count(MISHAPS)}\n`,
  );
  const all = [...layouts.map(({ id }) => id), ...kinds, ...MISHAPS];
  expect(all.filter((each) => (along.get(each) ?? 0) < LEAST)).toEqual([]);
  expect(ruleSets.filter(({ id }) => !along.has(id))).toEqual([]);
  expect(along.get("carried out") ?? 0).toBeGreaterThan(along.get("not carried out") ?? 0);
});
