import { rulesOfBox } from "../box/rulesOfBox";
import type { Drive, LayoutId, Plan, RuleSetId, Step } from "../document/plan";
import { Draw } from "../simulator/draw";
import { bring } from "../simulator/hands";
import { befall } from "../simulator/mishaps";
import { Practice } from "../simulator/practice";
import { boxWith } from "../testing/boxWith";
import { poolLost } from "./chance";
import { type ChanceDrive, componentsOf } from "./component";
import { chainOf } from "./chain";
import { modelOfPool } from "./poolModel";
import { rated } from "./rates";
import { atStart, spend } from "./solver";

// The simulated box, block by block, with drives that die at random, many times as often as real ones, and are replaced
// after a random time: it loses data as often as the chain says. In the soak of 10,000 runs and more.

const TIMES = Number(process.env.PROPERTY_TIMES ?? 1);
const SEED = Number(process.env.PROPERTY_SEED ?? 20_261_127) % 1_000_003;
const RUNS = 250 * Math.min(10, TIMES);

/** Hours until a new drive is in, in the mean. */
const WAITS = 60;

interface Case {
  plan: Plan;
  /** How often a drive fails, an hour. */
  fails: number;
  hours: number;
}

class Dice extends Draw {
  exponential(rate: number): number {
    return -Math.log(1 - this.below(2 ** 32) / 2 ** 32) / rate;
  }
}

/** Whether a box with its drives failing at random loses a pool within some hours. */
function loses({ plan, fails, hours }: Case, practice: Practice, dice: Dice): boolean {
  let up = plan.pools[0]!.groups[0]!.drives.map((id) => id);
  const like = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const waiting: string[] = [];
  const rebuilt = new Map<string, string>();
  const end = practice.box.hours + hours;
  for (let n = 0; practice.box.hours < end; n += 1) {
    const next = dice.exponential(up.length * fails);
    const arrives = waiting.length > 0 ? dice.exponential(waiting.length / WAITS) : Infinity;
    const over = practice.left() ?? Infinity;
    const passes = Math.min(next, arrives, over, end - practice.box.hours);
    practice.pass(passes);
    for (const [step, drive] of rebuilt)
      if (!practice.running.some((running) => running.step.id === step)) {
        rebuilt.delete(step);
        up.push(drive);
      }
    if (passes === over) continue;
    if (passes === next) {
      const drive = up[dice.below(up.length)]!;
      befall(practice, { kind: "drive-dies", drive });
      if (practice.down.size > 0) return true;
      up = up.filter((id) => id !== drive);
      waiting.push(drive);
    } else if (passes === arrives) {
      const old = waiting.splice(dice.below(waiting.length), 1)[0]!;
      const drive: Drive = { ...like.get(old)!, id: `n${n}`, serial: `N${n}`, place: { shelf: true } };
      like.set(drive.id, drive);
      bring(practice, drive);
      const step: Step = { id: `r${n}`, kind: "rebuild", group: "g1", drive: old, by: drive.id };
      expect(practice.begin(step)).toBe(true);
      rebuilt.set(step.id, drive.id);
    }
  }
  return false;
}

/** The same by the chain, with sectors left out. */
function byChain({ plan, fails, hours }: Case): number {
  const model = modelOfPool(plan, plan.pools[0]!, rulesOfBox(plan), null);
  const drives = model.drives.map((drive): ChanceDrive => ({ ...drive, rates: [fails], batch: null }));
  const sound = componentsOf(drives, model.clauses, [], []).reduce((left, component) => {
    const rates = rated(chainOf(component, 4)!, component, {
      fails: component.classes.map(() => fails),
      rebuilds: component.classes.map((each) => each.rebuilds),
      arrives: 1 / WAITS,
      stress: 1,
      stressedAlways: false,
      unreadable: 0,
      latent: 0,
      scrubHours: 1,
    });
    return left * (1 - poolLost(spend(rates, atStart(rates), hours).ends));
  }, 1);
  return 1 - sound;
}

test.each<[string, LayoutId, RuleSetId, number[], number]>([
  ["a mirror", "raid1", "classic-raid", [1, 1], 1 / 3000],
  ["single parity", "raid5", "classic-raid", [1, 1, 1, 1], 1 / 4000],
  ["double parity", "raid6", "classic-raid", [1, 1, 1, 1, 1], 1 / 1000],
  ["striped mirrors", "raid10", "linux-host", [1, 1, 1, 1], 1 / 3000],
  ["a hybrid", "hybrid-1", "hybrid-box", [1, 1, 2, 2], 1 / 4000],
])(
  "%s loses data as often as the chain says",
  (_, layout, set, sizes, fails) => {
    const known: Case = { plan: boxWith(set, layout, sizes, [], {}, 12), fails, hours: 8000 };
    const dice = new Dice(SEED + sizes.length);
    const first = Practice.of(known.plan, { blocks: 24, seed: SEED });
    let lost = 0;
    for (let run = 0; run < RUNS; run += 1) if (loses(known, first.fork(), dice)) lost += 1;
    const chance = byChain(known);
    expect(chance).toBeGreaterThan(0.05);
    expect(chance).toBeLessThan(0.95);
    const error = Math.sqrt((chance * (1 - chance)) / RUNS);
    process.stdout.write(
      `${layout}: ${lost} of ${RUNS}, by the chain ${(chance * RUNS).toFixed(0)}, z ${((lost / RUNS - chance) / error).toFixed(2)}\n`,
    );
    expect(Math.abs(lost / RUNS - chance)).toBeLessThan(4 * error);
  },
  300_000,
);
