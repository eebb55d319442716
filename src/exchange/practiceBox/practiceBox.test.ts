import { readSmart } from "../smart/readSmart";
import { readBoxText } from "../boxText/readBoxText";
import { recognise } from "@/core/reading/recognise";
import { standingOf } from "@/core/reading/standing";
import type { LayoutId, Plan, RuleSetId, StepBody } from "@/core/document/plan";
import { samples } from "@/core/document/samples/samples";
import { tryOut, type TryOut } from "@/core/simulator/tryOut";
import { numbered } from "@/core/testing/anySteps";
import { boxWith, withDrive, withRules } from "@/core/testing/boxWith";
import { walkPlan } from "@/core/walk/walkPlan";
import { answerPracticeBox } from "./answerPracticeBox";
import { isReadable } from "./isReadable";
import { planOfPractice } from "@/core/rehearsal/planOfPractice";
import { practiceFace } from "./practiceFace";

const NOW = "2026-11-26T10:00Z";
const stored = { volumes: [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1e12 }] };
/** A box whose drives print serials of their own. */
const boxOf = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[], ...steps: StepBody[]): Plan => {
  const plan = boxWith(set, layout, sizes, shelf, stored);
  return numbered(
    plan.drives.reduce((now, { id }) => withDrive(now, id, { serial: `CAL-${id.toUpperCase()}`, label: "" }), plan),
    steps,
  );
};
const tried = (plan: Plan, how: TryOut) => tryOut(plan, { blocks: 256, seed: 3 }, how);
const faceOf = (plan: Plan, how: TryOut) => practiceFace(plan, tried(plan, how));
const readBack = (plan: Plan, how: TryOut) => {
  const face = faceOf(plan, how);
  const read = readBoxText(`${face.blockDevices}\n${face.arrays}`);
  if (!read.ok) throw new Error(read.message);
  return { face, printed: read.printed };
};

const pulled: StepBody = { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" };
const wider: StepBody = { kind: "widen-group", group: "g1", drives: ["x1"] };

test.each<[RuleSetId, LayoutId, number[]]>([
  ["linux-host", "raid1", [4, 4]],
  ["linux-host", "raid5", [4, 4, 4]],
  ["linux-host", "raid6", [4, 4, 4, 8]],
  ["linux-host", "raid10", [4, 4, 4, 4]],
  ["linux-host", "hybrid-1", [4, 4, 8, 12]],
])("reading the face of %s with %s gives its state back, to the byte", (set, layout, sizes) => {
  const plan = boxOf(set, layout, sizes, []);
  const { printed } = readBack(plan, { hours: 5 });
  const { differences } = standingOf(printed, plan, "TB", NOW);
  expect(differences.map(({ code }) => code)).toEqual([]);
  expect(recognise(printed, null).plan.pools[0]!.groups[0]!.layout).toBe(layout);
});

/** Steps that a Linux host does by its arrays, each on a pool, with the drives that stand by. */
const ON_ARRAYS: [LayoutId, number[], number[], StepBody][] = [
  ...(
    [
      ["raid1", [4, 4]],
      ["raid5", [4, 4, 4]],
      ["raid6", [4, 4, 4, 4]],
      ["raid10", [4, 4, 4, 4]],
      ["hybrid-1", [4, 8, 8, 8]],
    ] satisfies [LayoutId, number[]][]
  ).flatMap(([layout, sizes]): [LayoutId, number[], number[], StepBody][] => [
    [layout, sizes, [8], { kind: "replace-drive", drive: "d2", by: "x1", how: "attached" }],
    [layout, sizes, [8], { kind: "replace-drive", drive: "d2", by: "x1", how: "pulled" }],
    [layout, sizes, [8], { kind: "verify", pool: "p1" }],
    [layout, sizes, [8], { kind: "widen-group", group: "g1", drives: ["x1"] }],
  ]),
  ["hybrid-1", [4, 4, 8, 8], [8], { kind: "widen-group", group: "g1", drives: ["x1"] }],
  ["hybrid-1", [4, 4, 8, 8], [8], { kind: "change-level", group: "g1", layout: "hybrid-2", drives: ["x1"] }],
  ["raid1", [4, 4], [4], { kind: "change-level", group: "g1", layout: "raid5", drives: ["x1"] }],
  ["raid5", [4, 4, 4], [4], { kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] }],
  ["raid5", [4, 4, 4], [4, 4], { kind: "change-level", group: "g1", layout: "raid6", drives: ["x1", "x2"] }],
];

test.each(ON_ARRAYS)(
  "%s of %j, with %j beside: %j is read as running, and how far it is",
  (layout, sizes, shelf, step) => {
    const plan = withRules(boxOf("linux-host", layout, sizes, shelf, step), { swapping: "hot-swap" });
    const { hours } = walkPlan(plan).moments[1]!.walked!.cost;
    for (const share of [0.2, 0.5, 0.9]) {
      const { running, differences, at } = standingOf(
        readBack(plan, { hours: hours.expected * share }).printed,
        plan,
        "TB",
        NOW,
      );
      expect([at, running?.step.id, differences.filter(({ code }) => code !== "array-running")]).toEqual([0, "s1", []]);
      expect(Math.abs((running?.share ?? 0) - share)).toBeLessThan(0.02);
      expect(running?.left.expected).toBeCloseTo(hours.expected * (1 - share), 0);
    }
    const then = standingOf(readBack(plan, { hours: hours.expected + 1 }).printed, plan, "TB", NOW);
    // That everything has been read through and compared is printed nowhere.
    expect([then.at, then.running, then.differences]).toEqual([step.kind === "verify" ? 0 : 1, null, []]);
  },
);

test("a hot spare that stands by on one side only is told; set by a step, the step is read as carried out", () => {
  const plan = boxOf("linux-host", "raid5", [4, 4, 4], [4], { kind: "set-spare", pool: "p1", drive: "x1" });
  const set = standingOf(readBack(plan, { hours: 1 }).printed, plan, "TB", NOW);
  expect([set.at, set.differences]).toEqual([1, []]);
  const none = { ...plan, steps: [] };
  const withSpare = { ...none, pools: planOfPractice(plan, tried(plan, { hours: 1 })).pools };
  const more = standingOf(readBack(plan, { hours: 1 }).printed, none, "TB", NOW).differences;
  const fewer = standingOf(readBack(none, { hours: 1 }).printed, { ...withSpare }, "TB", NOW).differences;
  expect(more.map(({ code, message }) => [code, message.replaceAll("\u00a0", " ")])).toEqual([
    ["spare-differs", "The 4 TB drive in bay 4 (serial CAL-X1) stands by for P on the box, and not in the plan."],
  ]);
  expect(fewer).toEqual([]);
  const listed = withDrive(withSpare, "x1", { place: { bay: 4 } });
  const idle = standingOf(
    readBack(withDrive(none, "x1", { place: { bay: 4 } }), { hours: 1 }).printed,
    listed,
    "TB",
    NOW,
  );
  expect(idle.differences.map(({ code, drives }) => [code, ...drives])).toEqual([["spare-differs", "x1"]]);
});

test("a drive that dies is gone from the arrays and from what prints its health; the steps wait", () => {
  const plan = boxOf("linux-host", "raid5", [4, 4, 4], [4], { kind: "verify", pool: "p1" }, wider);
  const how: TryOut = { hours: 40, mishaps: [{ at: 1, kind: "drive-dies", drive: "d2" }] };
  const { face } = readBack(plan, how);
  expect(face.arrays).toContain("[U_U]");
  expect(face.smart).toHaveLength(2);
  const practice = tried(plan, how);
  expect(practice.steps.has("s2")).toBe(false);
  expect(tried(plan, { ...how, goesOn: true }).steps.has("s2")).toBe(true);
  expect(planOfPractice(plan, practice).drives.find(({ id }) => id === "d2")).toMatchObject({ state: "failed" });
});

test("a drive that went missing and came back is where it was, and is filled again from the others", () => {
  const plan = boxOf("linux-host", "raid5", [4, 4, 4], []);
  const away = { at: 1, kind: "goes-missing" as const, drive: "d2" };
  const gone = planOfPractice(plan, tried(plan, { hours: 2, mishaps: [away] }));
  expect(gone.drives[1]).toMatchObject({ state: "missing", place: { shelf: true }, lastBay: 2 });
  const back = { hours: 3, mishaps: [away, { at: 2, kind: "comes-back" as const, drive: "d2" }] };
  expect(faceOf(plan, back).arrays).toMatch(/recovery = \d/);
  expect(planOfPractice(plan, tried(plan, { ...back, hours: 40 })).drives[1]).toEqual(plan.drives[1]);
});

test("sectors that cannot be read are among those that the drive prints as pending", () => {
  const plan = boxOf("linux-host", "raid5", [4, 4, 4], []);
  const { smart } = faceOf(plan, { hours: 1, mishaps: [{ at: 0, kind: "unreadable", drive: "d1", blocks: 3 }] });
  const read = readSmart(JSON.stringify(smart));
  expect(read).toMatchObject({ ok: true });
  expect(read.ok && read.reports.map(({ serial, health }) => [serial, health.pendingSectors, health.state])).toEqual([
    ["CAL-D1", 3, "watch"],
    ["CAL-D2", 0, "good"],
    ["CAL-D3", 0, "good"],
  ]);
});

test("every sample, and every box of arrays, is read back from its own texts; what the texts do not tell is not", () => {
  for (const { plan } of samples) expect([plan.name, isReadable(plan, NOW)]).toEqual([plan.name, true]);
  expect(isReadable(boxOf("linux-host", "hybrid-2", [4, 4, 4, 8], []), NOW)).toBe(true);
  expect(isReadable(boxOf("scheduled-parity", "parity-drive-1", [4, 4, 8], []), NOW)).toBe(false);
  expect(isReadable(boxOf("desktop-mirror", "raid1", [4, 4, 4], []), NOW)).toBe(false);
});

describe("POST /api/practice-box", () => {
  const answer = (body: unknown) => {
    const { status, body: bytes } = answerPracticeBox(typeof body === "string" ? body : JSON.stringify(body));
    return { status, body: JSON.parse(new TextDecoder().decode(bytes)) as Record<string, unknown> };
  };
  const plan = boxOf("linux-host", "raid5", [4, 4, 4], [4], pulled);

  test("what the box prints after some hours, the same each time; other hours, other words", () => {
    const asked = { plan, seed: 5, hours: 6, mishaps: [{ at: 3, kind: "power-cut" }] };
    const { status, body } = answer(asked);
    expect(status).toBe(200);
    expect(body.hours).toBe(6);
    expect(body.arrays).toMatch(/recovery = \d/);
    expect((body.said as { what: string }[]).map(({ what }) => what)).toEqual(["began", "power-cut"]);
    expect(answer(asked)).toEqual({ status, body });
    expect(answer({ ...asked, choices: { steps: "none" } }).body.arrays).not.toContain("recovery");
  });

  test.each([
    ["{", 400, "not JSON"],
    [{ hours: 3 }, 400, "not what is asked for"],
    [{ plan, hours: -1 }, 400, "not what is asked for"],
    [{ plan, mishaps: [{ at: 1, kind: "earthquake" }] }, 400, "not what is asked for"],
    [{ plan, mishaps: [{ at: 1, kind: "drive-dies" }] }, 400, "not what is asked for"],
    [{ plan: {} }, 400, "no plan document"],
    [{ plan, mishaps: [{ at: 1, kind: "drive-dies", drive: "d99" }] }, 422, "a drive that is not in the plan"],
    [{ plan, mishaps: [{ at: 1, kind: "parity-updated", pool: "d1" }] }, 422, "a pool that is not in the plan"],
    [{ plan: boxOf("desktop-mirror", "raid1", [4, 4, 4], []) }, 422, "prints nothing that can be read"],
    [{ plan, mishaps: [{ at: 1, kind: "deletion", volume: "p1" }] }, 422, "a volume that is not in the plan"],
  ])("case %#: %s is refused", (body, status, message) => {
    const result = answer(body);
    expect(result.status).toBe(status);
    expect(result.body.message).toContain(message);
  });
});
