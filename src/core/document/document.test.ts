import fc from "fast-check";
import { readFileSync } from "node:fs";
import { anyPlan } from "../testing/anyPlan";
import { PATTERNS } from "./explainSchemaErrors";
import type { Plan } from "./plan";
import { checkPlan, readPlan } from "./readPlan";
import { clinic } from "./samples/clinic";
import { samples } from "./samples/samples";
import { writePlan } from "./writePlan";

const broken = (change: (plan: Plan & Record<string, unknown>) => void) => {
  const plan = structuredClone(clinic) as Plan & Record<string, unknown>;
  change(plan);
  const result = checkPlan(plan);
  return result.ok ? null : result;
};

test.each(samples.map((sample) => [sample.id, sample.plan]))(
  "the sample %s is a plan, and made afresh it is the same",
  (_, plan) => {
    expect(readPlan(writePlan(plan))).toEqual({ ok: true, plan });
  },
);

test("reading what was written is the identity, for any plan", () => {
  fc.assert(
    fc.property(anyPlan, (plan) => {
      expect(readPlan(writePlan(plan))).toEqual({ ok: true, plan });
      const again = readPlan(writePlan(plan));
      expect(again.ok && writePlan(again.plan)).toBe(writePlan(plan));
    }),
  );
});

test("a plan that was written before layouts, steps and rules got their names is read as what it is now", () => {
  const former = (text: string) =>
    text
      .replaceAll('"mirror-onto-one"', '"spanned-mirror"')
      .replaceAll('"update-parity"', '"sync"')
      .replaceAll('"replacementMarginShare"', '"rightSizeShare"');
  const named = structuredClone(clinic);
  named.box.rules.overrides = { replacementMarginShare: 0.01, layouts: ["raid1", "mirror-onto-one"] };
  named.pools[0]!.groups[0]!.layout = "mirror-onto-one";
  named.steps = [
    { id: "s1", kind: "update-parity", pool: "p1" },
    { id: "s2", kind: "rebuild-from-backup", pool: "p1", layout: "mirror-onto-one", drives: ["d1"], box: named.box },
  ];
  expect(former(writePlan(named)).match(/spanned-mirror|"sync"|rightSizeShare/g)).toHaveLength(7);
  expect(readPlan(former(writePlan(named)))).toEqual({ ok: true, plan: named });
  fc.assert(
    fc.property(anyPlan, (plan) => {
      expect(readPlan(former(writePlan(plan)))).toEqual({ ok: true, plan });
    }),
  );
  for (const strange of [null, 7, [], { box: null, pools: 1, steps: [null, { kind: "sync" }] }])
    expect(checkPlan(strange).ok).toBe(false);
});

describe("what is refused says what, where and how to mend it", () => {
  test("a list that is too long is called by what it holds", () => {
    const result = broken((plan) => {
      plan.drives = Array.from({ length: 201 }, (_, i) => ({ ...clinic.drives[0]!, id: `d${i}` }));
      plan.pools = [];
      plan.steps = [];
    });
    expect(result?.problems).toContainEqual(
      expect.objectContaining({ message: "There may be at most 200 drives.", pointer: "/drives" }),
    );
  });

  test("a text is told how it must be written, whatever it is of", () => {
    const schema = readFileSync("src/core/document/schema/plan-1.json", "utf8");
    const patterns = [...schema.matchAll(/"pattern": ("[^"]+")/g)].map(([, text]) => JSON.parse(text!) as string);
    expect([...PATTERNS.keys()].sort()).toEqual([...new Set(patterns)].sort());
    const late = broken((plan) => Object.assign(plan.drives[0]!, { purchased: "2150-01-01" }));
    expect(late).toMatchObject({ problems: [{ message: expect.stringMatching(/day of 1900 to 2100/) }] });
  });
  test.each([
    ["not JSON", "{ nonsense", "not-json"],
    ["another kind of file", '{"name":"x"}', "not-a-plan"],
    ["a bare number", "7", "not-a-plan"],
    ["null", "null", "not-a-plan"],
  ])("%s", (_, text, code) => {
    const result = readPlan(text);
    expect(result).toMatchObject({ ok: false, kind: "not-a-plan", problems: [{ code, pointer: "" }] });
  });

  test("a newer version", () => {
    expect(broken((plan) => Object.assign(plan, { version: 2, whatever: true }))).toMatchObject({
      kind: "newer",
      problems: [{ pointer: "/version", message: expect.stringContaining("newer Cortijo") }],
    });
  });

  test.each<[string, (plan: Plan & Record<string, unknown>) => void, string, RegExp]>([
    ["an unknown field", (plan) => (plan.colour = "blue"), "/colour", /not a field/],
    ["an unknown field with a slash", (plan) => (plan["a/b"] = 1), "/a~1b", /not a field/],
    ["a missing field", (plan) => delete (plan as Partial<Plan>).drives, "", /"drives" is missing/],
    ["a size that is no whole number", (plan) => (plan.drives[0]!.bytes = 1.5), "/drives/0/bytes", /whole number/],
    [
      "a layout that does not exist",
      (plan) => Object.assign(plan.pools[0]!.groups[0]!, { layout: "raid9" }),
      "/pools/0/groups/0/layout",
      /one of "raid1"/,
    ],
    [
      "a drive both in a bay and on the shelf",
      (plan) => Object.assign(plan.drives[0]!.place, { shelf: true }),
      "/drives/0/place",
      /exactly one field/,
    ],
    ["a name that is too long", (plan) => (plan.name = "x".repeat(200)), "/name", /120 characters/],
  ])("%s", (_, change, pointer, message) => {
    expect(broken(change)).toMatchObject({
      kind: "not-a-plan",
      problems: expect.arrayContaining([{ code: "schema", pointer, message: expect.stringMatching(message) }]),
    });
  });

  test.each<[string, (plan: Plan) => void, string, string]>([
    ["two drives in one bay", (plan) => (plan.drives[1]!.place = { bay: 1 }), "bay-taken", "/drives/1/place/bay"],
    ["a bay that does not exist", (plan) => (plan.drives[1]!.place = { bay: 7 }), "no-such-bay", "/drives/1/place/bay"],
    [
      "a duplicate serial, whatever its case",
      (plan) => (plan.drives[1]!.serial = "tj4-0417 "),
      "duplicate-serial",
      "/drives/1/serial",
    ],
    ["a duplicate id", (plan) => (plan.drives[4]!.id = "d1"), "duplicate-id", "/drives/4/id"],
    [
      "a drive in two groups",
      (plan) =>
        plan.pools.push({
          id: "p2",
          name: "",
          groups: [{ id: "g2", layout: "raid1", drives: ["d1", "d5"] }],
          spares: [],
          volumes: [],
        }),
      "drive-used-twice",
      "/pools/1/groups/0/drives/0",
    ],
    [
      "a member that is also a spare",
      (plan) => plan.pools[0]!.spares.push("d2"),
      "drive-used-twice",
      "/pools/0/spares/0",
    ],
    [
      "a drive that is not in the plan",
      (plan) => plan.pools[0]!.groups[0]!.drives.push("d99"),
      "no-such-drive",
      "/pools/0/groups/0/drives/4",
    ],
    [
      "a duplicate group id",
      (plan) => plan.pools[0]!.groups.push({ id: "g1", layout: "raid1", drives: [] }),
      "duplicate-id",
      "/pools/0/groups/1/id",
    ],
    [
      "ten petabytes, which cannot be counted to the byte",
      (plan) =>
        (plan.drives = Array.from({ length: 10 }, (_, i) => ({
          ...plan.drives[4]!,
          id: `d${i}`,
          serial: `${i}`,
          bytes: 1e15,
          place: { shelf: true },
        }))),
      "too-much-together",
      "/drives",
    ],
    [
      "a chance whose low is above what is expected",
      (plan) => (plan.chance = { inputs: { stress: { low: 3, expected: 2, high: 5 } } }),
      "out-of-order",
      "/chance/inputs/stress",
    ],
    [
      "per cent where a share is meant",
      (plan) => (plan.chance = { inputs: { flash: { low: 1, expected: 2, high: 3 } } }),
      "more-than-all",
      "/chance/inputs/flash",
    ],
  ])("%s", (_, change, code, pointer) => {
    expect(broken(change)).toMatchObject({
      kind: "impossible",
      problems: expect.arrayContaining([expect.objectContaining({ code, pointer })]),
    });
  });

  test("any JSON value at all is answered, never thrown at", () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => expect(checkPlan(value).ok).toBe(false)));
    fc.assert(
      fc.property(
        fc.jsonValue(),
        fc.constantFrom("box", "drives", "pools", "name"),
        (value, field) => void checkPlan({ ...clinic, [field]: value }),
      ),
    );
  });
});
