import { checkPlan } from "../../src/core/document/readPlan";
import type { LayoutId, Plan, RuleSetId, Step } from "../../src/core/document/plan";
import { layouts } from "../../src/core/layouts/registry";
import { ruleSets } from "../../src/core/rules/ruleSets";
import { testDrive } from "../../src/core/testing/arbitraries";
import { Dice } from "../../src/core/testing/likelyPlan";
import { emptyPlan } from "../../src/core/document/emptyPlan";
import { answerRequest } from "../../src/exchange/prediction/answerRequest";
import { PARTS } from "../../src/exchange/prediction/parts";

const drawnSteps = (dice: Dice, drives: number, pools: number, count: number): Step[] => {
  const kind = dice.below(5);
  return Array.from({ length: count }, (_, i): Step => {
    const [pool, id, together] = [`p${i % pools}`, `s${i}`, dice.below(9) === 0 ? { together: true } : {}];
    const [one, other] = [`d${i % drives}`, `d${(i + Math.floor(drives / 2)) % drives}`];
    const all: Step[] = [
      { id, ...together, kind: "verify", pool },
      { id, ...together, kind: "replace-drive", drive: one, by: other, how: dice.one(["attached", "pulled"]) },
      { id, ...together, kind: "test-drive", drive: one },
      { id, ...together, kind: "back-up", pool, to: "x".repeat(200) },
      { id, ...together, kind: "grow-volume", pool, volume: `v${i % pools}0` },
    ];
    return (kind === 4 ? dice.one(all) : all[kind]) as Step;
  });
};

/** A valid plan that is made to cost much: drives, pools, steps, volumes, data sets, and a calendar full of holes. */
function costlyPlan(dice: Dice): Plan {
  const drives = dice.one([24, 48, 200]);
  const pools = Math.max(1, Math.floor(drives / dice.one([2, 4, 8, 24])));
  const layout = dice.one(layouts).id as LayoutId;
  const perPool = Math.min(24, Math.floor(drives / (pools * dice.one([1, 2]))) || 1);
  const day = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 86_400_000).toISOString().slice(0, 10);
  const hole = dice.one([1, 6, 7, 30]);
  const plan: Plan = {
    ...emptyPlan("x".repeat(120)),
    box: { name: "", bays: 24, rules: { set: dice.one(ruleSets).id as RuleSetId } },
    drives: Array.from({ length: drives }, (_, i) => testDrive(`d${i}`, (1 + (i % 44)) * 1e12, {})),
    pools: Array.from({ length: Math.min(24, pools) }, (_, p) => ({
      id: `p${p}`,
      name: "n".repeat(120),
      groups: [
        {
          id: `g${p}`,
          layout,
          drives: Array.from({ length: perPool }, (_, i) => `d${p * perPool + i}`),
          ...(layout === "chunk-parity" ? { options: { data: 4, parity: 2 } } : {}),
        },
      ],
      spares: [],
      volumes: Array.from({ length: dice.one([0, 1, 40]) }, (_, v) => ({
        id: `v${p}${v}`,
        name: "v".repeat(60),
        bytes: 1e11,
        fileSystem: "btrfs" as const,
      })),
    })),
  };
  plan.steps = drawnSteps(dice, drives, plan.pools.length, dice.one([30, 500, 2000]));
  const volumes = plan.pools.flatMap((pool) => pool.volumes.map(({ id }) => id));
  if (volumes.length > 0 && dice.below(2) === 0)
    plan.dataSets = Array.from({ length: 60 }, (_, i) => ({
      ...{ id: `x${i}`, name: "s", volume: volumes[i % volumes.length]!, bytes: 1e10, worth: "precious" as const },
      growth: { sharePerYear: 0.5 },
    }));
  if (plan.dataSets)
    plan.backups = Array.from({ length: 20 }, (_, i) => ({
      ...{ id: `b${i}`, name: "b", kind: "service" as const, place: "elsewhere" as const, everyDays: 1 },
      ...{ keepsVersions: true, bytes: 1e12, dataSets: plan.dataSets!.map(({ id }) => id) },
    }));
  if (dice.below(2) === 0)
    plan.calendar = {
      ...{ id: "c", start: "2026-01-01", timeZone: dice.one(["Europe/Madrid", "UTC", "Australia/Lord_Howe"]) },
      deliveryDays: dice.one([0, 365]),
      hands: Array.from({ length: 14 }, (_, i) => ({ days: [1 + (i % 7)], from: "08:00", to: `08:${45 + (i % 15)}` })),
      // As many holes as there can be.
      excluded: Array.from({ length: 100 }, (_, i) => ({
        from: day(i * (hole + 1)),
        to: day(i * (hole + 1) + hole - 1),
      })),
    };
  return plan;
}

/** What one request cost. */
export interface Cost {
  cpu: number;
  bytes: number;
  status: number;
  parts: string | null;
  text: string;
}

function costOf(text: string, parts: string | null): Cost {
  const begun = process.cpuUsage();
  const { status, body } = answerRequest(text, parts, "2026-11-26");
  const { user, system } = process.cpuUsage(begun);
  return { cpu: (user + system) / 1000, bytes: body.length, status, parts, text };
}

/** Looks for the valid plan under 1 MiB that costs most, in milliseconds of processor time and in bytes. */
export function worst(count: number, seed: number): { slowest: Cost; largest: Cost; tried: number } {
  const dice = new Dice(seed);
  costOf(JSON.stringify(costlyPlan(new Dice(1))), null);
  let [slowest, largest]: (Cost | null)[] = [null, null];
  let tried = 0;
  while (tried < count) {
    const text = JSON.stringify(costlyPlan(dice));
    if (text.length > 2 ** 20 || !checkPlan(JSON.parse(text)).ok) continue;
    const parts = dice.one([null, null, "moments", PARTS.filter(() => dice.below(2) === 0).join(",") || null]);
    tried += 1;
    const cost = costOf(text, parts);
    if (!slowest || cost.cpu > slowest.cpu) slowest = cost;
    if (!largest || (cost.status === 200 && cost.bytes > largest.bytes)) largest = cost;
  }
  // Once more, by itself: what a first look cost may have been the machine's own business.
  const again = Array.from({ length: 3 }, () => costOf(slowest!.text, slowest!.parts)).sort((a, b) => a.cpu - b.cpu);
  return { slowest: again[1]!, largest: largest!, tried };
}
