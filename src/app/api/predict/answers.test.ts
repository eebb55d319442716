import Ajv2020 from "ajv/dist/2020";
import fc from "fast-check";
import planSchema from "@/core/document/schema/plan-1.json";
import { growingClinic } from "@/core/document/samples/growingClinic";
import { clinic } from "@/core/document/samples/clinic";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import { checkPlan } from "@/core/document/readPlan";
import type { Plan } from "@/core/document/plan";
import { predict } from "@/core/prediction/predict";
import { testDrive } from "@/core/testing/arbitraries";
import { Dice, likelySeed, likelyWalk } from "@/core/testing/likelyPlan";
import { nastyPlan, stretchedPlan } from "../../../../scripts/attack/stretchedPlan";
import { answerRequest, MOST_ANSWER_BYTES } from "@/exchange/prediction/answerRequest";
import { openApi } from "../openapi.json/openApi";

const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: false, validateSchema: false });
ajv.addSchema(openApi, "/api/openapi.json");
ajv.addSchema(planSchema, "/schema/plan-1.json");
const isAsDescribed = ajv.getSchema("/api/openapi.json#/components/schemas/Prediction")!;

const ask = (document: unknown, parts: string | null = null) => {
  const { status, body } = answerRequest(JSON.stringify(document), parts, "2026-11-26");
  return { status, bytes: body.length, answer: JSON.parse(new TextDecoder().decode(body)) };
};
const described = (answer: unknown) => (isAsDescribed(answer) ? [] : isAsDescribed.errors);

test("answers are as the description says, which refuses what is not", () => {
  for (const plan of [clinic, growingClinic, coveredClinic]) expect(described(ask(plan).answer)).toEqual([]);
  const broken = ask(clinic).answer;
  broken.pools[0].usableBytes = null;
  expect(described(broken)).not.toEqual([]);
});

test("hours are corrected by the times on record, and the answer says by which", () => {
  const entry = { id: "l1", what: "check" as const, text: "", start: "2026-10-01T08:00Z", end: "2026-10-01T23:00Z" };
  const plan: Plan = { ...growingClinic, log: [{ ...entry, byRates: 10 }] };
  const [plain, own] = [ask(growingClinic).answer, ask(plan).answer];
  expect(described(own)).toEqual([]);
  expect(plain.ownTimes).toBeUndefined();
  const by = own.ownTimes.find(({ work }: { work: string }) => work === "rebuild");
  expect(by).toMatchObject({ entries: 0, ofOtherWork: 1 });
  // One check that took half as long again: of a rebuild the box's part is learned, 0.0784 ÷ 0.1245 of it.
  expect(by.factor.expected).toBeCloseTo(1.5 ** (0.0784 / 0.1245), 6);
  const at = growingClinic.steps.findIndex(({ kind }) => kind === "replace-drive") + 1;
  expect(own.moments[at].boxWork.byRates).toBeCloseTo(plain.moments[at].hours.expected, 6);
  expect(own.moments[at].hours.expected).toBeCloseTo(plain.moments[at].hours.expected * by.factor.expected, 6);
  expect(ask({ ...plan, ratesOnly: ["check"] }).answer.ownTimes).toBeUndefined();
});

test("chances are told where they are asked for: of pools as they are now, of steps, of the plan", () => {
  const { answer } = ask(coveredClinic, "chance");
  expect(described(answer)).toEqual([]);
  expect(ask(coveredClinic).answer.planChance).toBeUndefined();
  const [pool] = answer.pools;
  expect(pool.chance.mostly).toBe("sector");
  expect(pool.chance.year.poolLost.high).toBeGreaterThan(pool.chance.year.poolLost.expected);
  expect(pool.withBackups.mostly).toBe("deletion");
  const steps = answer.moments.filter(({ done }: { done?: boolean }) => done);
  const sound = steps.reduce(
    (left: number, { chance }: { chance: { expected: number } }) => left * (1 - chance.expected),
    1,
  );
  expect(answer.planChance.expected).toBeCloseTo(1 - sound, 12);
  expect(answer.planWithBackups.expected).toBeLessThan(answer.planChance.expected);
  // The first drive that is pulled is missed for 12.3 hours: 24 TB on the others are read once.
  const pulled = steps.find(({ after }: { after: string }) => after === "s3");
  expect(pulled.chance).toMatchObject({ mostly: "sector" });
});

test("of a plan of which too many chances are asked it is said; rates at their ends are answered with numbers", () => {
  const step = coveredClinic.steps.find(({ kind }) => kind === "verify")!;
  const many = { ...coveredClinic, steps: Array.from({ length: 1500 }, (_, i) => ({ ...step, id: `v${i}` })) };
  expect(ask(many, "chance").status).toBe(422);
  const most = { low: 0, expected: 100_000, high: 100_000 };
  const all = { low: 0, expected: 1, high: 1 };
  const inputs = { stress: most, worn: most, latent: most, unreadable: most, deliveryOrdered: most, diskYear3: all };
  for (const moved of [inputs, { ...inputs, deliveryOrdered: { low: 0, expected: 0, high: 0 } }]) {
    const { status, answer } = ask({ ...clinic, chance: { inputs: moved } }, "chance");
    expect([status, described(answer)]).toEqual([200, []]);
  }
});

test("names that every object knows change nothing but the names", () => {
  fc.assert(
    fc.property(likelySeed, ([seed, steps]) => {
      const [plain, nasty] = [ask(likelyWalk(seed, steps).plan), ask(nastyPlan(seed, steps))];
      expect([nasty.status, described(nasty.answer)]).toEqual([200, []]);
      const figures = (answer: typeof plain.answer) =>
        answer.moments.map(({ done, hours, capacities, work }: Record<string, unknown>) => ({
          done,
          hours,
          capacities,
          work: (work as { reads: number }[] | undefined)?.map(({ reads }) => reads),
        }));
      expect(figures(nasty.answer)).toEqual(figures(plain.answer));
    }),
    { numRuns: 60 },
  );
});

test("any plan that the schema allows, out to the ends of its ranges, is answered, and with numbers only", () => {
  let valid = 0;
  fc.assert(
    fc.property(likelySeed, fc.constantFrom(0.02, 0.1, 0.4), fc.boolean(), ([seed, steps], rate, withDates) => {
      const base = { ...nastyPlan(seed, steps), ...(withDates ? { calendar: coveredClinic.calendar! } : {}) };
      const plan = stretchedPlan(base, new Dice(seed), rate);
      const { status, answer, bytes } = ask(plan);
      const checked = checkPlan(plan);
      expect([status, checked.ok ? [] : checked.problems]).toEqual([
        checked.ok ? 200 : checked.kind === "impossible" ? 422 : 400,
        expect.anything(),
      ]);
      expect(bytes).toBeLessThan(MOST_ANSWER_BYTES);
      if (!checked.ok) return;
      valid += 1;
      expect(described(answer)).toEqual([]);
    }),
    { numRuns: 250 },
  );
  expect(valid).toBeGreaterThan(60);
});

describe("parts", () => {
  test("only what is asked is answered, with what it is a detail of", () => {
    expect(Object.keys(ask(coveredClinic, "demand,orders").answer)).toEqual(["orders", "demand"]);
    const { answer } = ask(coveredClinic, "ledger,moments");
    expect(Object.keys(answer)).toEqual(["pools", "moments"]);
    expect(Object.keys(answer.pools[0])).toEqual([
      "id",
      "name",
      "usableBytes",
      "tolerance",
      "state",
      "redundancyLeft",
      "missing",
      "unreadable",
      "ledger",
    ]);
    expect(answer.moments[1].pools[0].ledger).toEqual(ask(coveredClinic).answer.moments[1].pools[0].ledger);
    expect(answer.moments[1].findings).toBeUndefined();
    expect(ask(coveredClinic, "findings").answer.findings).toEqual([]);
    expect(ask(clinic, "bands").answer.pools[0].groups[0].bands).toEqual(predict(clinic).pools[0]!.groups[0]!.bands);
  });
  test("a part that there is not is refused with those that there are", () => {
    const { status, answer } = ask(clinic, "pools,legder");
    expect([status, answer.message]).toEqual([400, expect.stringMatching(/"legder".*pools, groups, bands/)]);
  });
  test("an answer that would pass 8 MB is not cut but refused, naming parts that fit", () => {
    const drives = Array.from({ length: 24 }, (_, i) => testDrive(`d${i}`, (i + 1) * 1e12));
    const groups = [{ id: "g1", layout: "hybrid-2" as const, drives: drives.map(({ id }) => id) }];
    const pools = [{ ...clinic.pools[0]!, groups }];
    const steps: Plan["steps"] = Array.from({ length: 2000 }, (_, i) => ({ id: `v${i}`, kind: "verify", pool: "p1" }));
    const large = { ...clinic, drives, pools, steps };
    const { status, answer } = ask(large);
    expect([status, answer.findings]).toEqual([422, []]);
    const offered = [...answer.message.matchAll(/\?parts=([a-z,]+)/g)].map((match) => match[1] as string);
    expect(offered).toHaveLength(2);
    for (const parts of offered) expect(ask(large, parts).status).toBe(200);
    expect(ask(large, "moments").answer.moments).toHaveLength(2001);
  });
});

test("a megabyte of mistakes is refused as quickly as one", () => {
  const begun = performance.now();
  const hostile = `{"format":"cortijo-plan","version":1,"steps":[${"{},".repeat(340_000)}{}]}`;
  expect(answerRequest(hostile, null, "2026-11-26").status).toBe(400);
  expect(performance.now() - begun).toBeLessThan(5000);
});
