import Ajv2020 from "ajv/dist/2020";
import { MiB, TiB } from "@/core/bytes/bytes";
import planSchema from "@/core/document/schema/plan-1.json";
import type { Plan } from "@/core/document/plan";
import { walkPlan } from "@/core/walk/walkPlan";
import { boxWith, withRules } from "@/core/testing/boxWith";
import { answerBestWay } from "@/exchange/bestWay/answerBestWay";
import { openApi } from "../openapi.json/openApi";

const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: false, validateSchema: false });
ajv.addSchema(openApi, "/api/openapi.json");
ajv.addSchema(planSchema, "/schema/plan-1.json");
const isAnswer = ajv.getSchema("/api/openapi.json#/components/schemas/BestWay")!;
const PATH = "#/paths/~1api~1best-way/post";
const isAsked = ajv.getSchema(`/api/openapi.json${PATH}/requestBody/content/application~1json/schema`)!;
const isRefusal = ajv.getSchema(`/api/openapi.json${PATH}/responses/422/content/application~1json/schema`)!;

const TODAY = "2026-11-27";

const prices = [
  { bytes: 4 * TiB, cents: 9000 },
  { bytes: 8 * TiB, cents: 16000 },
  { bytes: 12 * TiB, cents: 24000 },
  { bytes: 16 * TiB, cents: 30000 },
];

/** The worked example of a hybrid, a year at a time. */
const hybrid = withRules(boxWith("hybrid-box", "hybrid-1", [4 * TiB, 4 * TiB, 8 * TiB], [], {}, 4), {
  systemReserveBytes: 0,
});
const wish = {
  months: 72,
  demand: [8, 12, 14, 20, 24, 28].flatMap((size) => Array.from({ length: 12 }, () => size * TiB)),
  headroom: 0,
  fallPerYear: 0.1,
  prices,
};

interface Answer {
  cents: number;
  proved: boolean;
  lowerBoundCents: number;
  exposedHours: number;
  acts: { month: number; kind: string; bytes: number; cents: number; drive: string; replaces?: string }[];
  plan: Plan;
  habits: Record<string, number>;
  month: number;
  enoughCentsPerYear?: number;
  message: string;
}

function ask(plan: Plan, more: object = {}): { status: number; answer: Answer } {
  const asked = { plan, wish: { ...wish, ...more } };
  expect([isAsked(asked), isAsked.errors]).toEqual([true, null]);
  const { status, body } = answerBestWay(JSON.stringify(asked), TODAY);
  const answer = JSON.parse(new TextDecoder().decode(body)) as Answer;
  const check = status === 200 ? isAnswer : isRefusal;
  expect([check(answer), check.errors]).toEqual([true, null]);
  return { status, answer };
}

test("the worked example is answered with dated steps that hold what is stored, month by month", () => {
  const { status, answer } = ask(hybrid);
  expect(status).toBe(200);
  expect(answer).toMatchObject({ proved: true, cents: 47642, lowerBoundCents: 47642 });
  expect(answer.acts.map(({ month, kind, bytes, cents }) => [month, kind, bytes / TiB, cents])).toEqual([
    [12, "add", 8, 14400],
    [36, "replace", 12, 17496],
    [48, "replace", 12, 15746],
  ]);
  expect(answer.habits).toMatchObject({ sameSize: 64906, bestPerTerabyte: 48870 });
  const { moments } = walkPlan(answer.plan);
  // What the pool holds by each month is what the plan says after the last step that is dated no later.
  const held = wish.demand.map((_, month) => {
    const day = `${2026 + Math.floor((10 + month) / 12)}-${String(((10 + month) % 12) + 1).padStart(2, "0")}-27`;
    const steps = answer.plan.steps;
    const first = steps.findIndex(({ notBefore }) => notBefore !== undefined && notBefore > day);
    return moments[first < 0 ? steps.length : first]!.capacities.pool;
  });
  held.forEach((bytes, month) => expect(bytes).toBeGreaterThanOrEqual(wish.demand[month]! - MiB));
  expect(answer.plan.steps.filter(({ notBefore }) => notBefore).map(({ notBefore }) => notBefore)).toEqual([
    "2027-11-27",
    "2029-11-27",
    "2030-11-27",
  ]);
});

test("a box without a pool gets one, and pools of pairs get further pairs", () => {
  const bare = { ...hybrid, pools: [], drives: [] };
  const first = ask(bare, { layouts: ["hybrid-1", "raid5"], tolerance: 1 });
  expect([first.status, first.answer.acts[0]?.kind]).toEqual([200, "further-group"]);
  const pair = withRules(boxWith("fixed-group", "raid1", [4 * TiB, 4 * TiB], [], {}, 6), { poolReserveShare: 0 });
  const pairs = ask(pair, { months: 24, demand: [4 * TiB, 7 * TiB] });
  expect([pairs.status, pairs.answer.acts.map(({ kind }) => kind)]).toEqual([200, ["further-group", "further-group"]]);
});

test("fewer exposed hours cost more", () => {
  const money = ask(hybrid).answer;
  const { answer } = ask(hybrid, { aim: "hours" });
  expect(answer.cents).toBe(48870);
  expect(answer.exposedHours).toBeLessThan(money.exposedHours);
  expect(answer.exposedHours).toBeGreaterThan(0);
  expect(ask(hybrid, { aim: "acts" }).answer.acts).toHaveLength(2);
});

test("money per year is kept, by buying ahead", () => {
  const { answer } = ask(hybrid, { centsPerYear: 17000 });
  const years = answer.acts.reduce<Record<number, number>>((sums, { month, cents }) => {
    const year = Math.floor(month / 12);
    return { ...sums, [year]: (sums[year] ?? 0) + cents };
  }, {});
  expect(Math.max(...Object.values(years))).toBeLessThanOrEqual(17000);
  expect(answer.cents).toBeGreaterThan(47642);
});

test("where there is no way the month that breaks it is told", () => {
  const { status, answer } = ask(hybrid, { centsPerYear: 10000 });
  expect([status, answer.month]).toEqual([422, 12]);
  expect(answer.message).toContain("2027-11-27");
  // What the cheapest way of all spends in its dearest year is enough.
  expect(answer.enoughCentsPerYear).toBe(17496);
  expect(ask(hybrid, { centsPerYear: 17496 }).status).toBe(200);
  expect(ask(hybrid, { demand: [100 * TiB] }).answer.month).toBe(0);
});

test("what is no such request is refused with where and why", () => {
  const errors = (body: unknown) => {
    const { status, body: bytes } = answerBestWay(typeof body === "string" ? body : JSON.stringify(body), TODAY);
    return [
      status,
      (JSON.parse(new TextDecoder().decode(bytes)) as { errors: { pointer: string }[] }).errors[0]?.pointer,
    ];
  };
  expect(errors("{")).toEqual([400, undefined]);
  expect(errors({ plan: hybrid, wish: { months: 0 } })).toEqual([400, "/wish/months"]);
  expect(errors({ plan: {}, wish })).toEqual([400, "/plan"]);
  expect(errors({ plan: hybrid, wish: { ...wish, pool: "p9" } })).toEqual([400, "/wish/pool"]);
  expect(errors({ plan: hybrid, wish: { months: 12 } })).toEqual([400, "/wish/demand"]);
});
