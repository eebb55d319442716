import type { LayoutId, Plan, StepBody } from "../document/plan";
import { fateOf } from "../failures/fate";
import { numbered } from "../testing/anySteps";
import { boxWith } from "../testing/boxWith";
import { poolsAt } from "../walk/poolsAt";
import { walkPlan } from "../walk/walkPlan";

// What the kernel's RAID driver does and refuses besides sizes, as it was measured.

const box = (layout: LayoutId, drives: number, shelf: number): Plan =>
  boxWith("linux-host", layout, Array<number>(drives).fill(4), Array<number>(shelf).fill(4));
const after = (plan: Plan, ...steps: StepBody[]) => walkPlan(numbered(plan, steps)).moments.slice(1);
const codes = (plan: Plan, ...steps: StepBody[]) =>
  after(plan, ...steps).map(({ walked }) =>
    walked!.findings.filter((each) => each.severity === "block").map((each) => each.code),
  );
const level = (layout: LayoutId, drives: string[], without: string[] = []): StepBody => ({
  kind: "change-level",
  group: "g1",
  layout,
  drives,
  without,
});
const widen = (...drives: string[]): StepBody => ({ kind: "widen-group", group: "g1", drives });

test("a stripe made striped mirrors gives each old drive a new partner: never are two old ones fatal", () => {
  const [moment] = after(box("raid0", 2, 2), level("raid10", ["x1", "x2"]));
  expect(moment!.walked!.done).toBe(true);
  const bands = poolsAt(moment!, "TB")[0]!.groups[0]!.bands;
  const fate = (...lost: string[]) => fateOf(bands, new Set(lost)).kind;
  expect([fate("d1", "d2"), fate("x1", "x2")]).toEqual(["degraded", "degraded"]);
  const fatal = ["x1", "x2"].filter((partner) => fate("d1", partner) === "lost");
  expect(fatal).toHaveLength(1);
  expect(fate("d2", fatal[0] === "x1" ? "x2" : "x1")).toBe("lost");
});

test("striped mirrors made a stripe let one of each pair go, and no other two", () => {
  const mirrors = box("raid10", 4, 0);
  expect(codes(mirrors, level("raid0", [], ["d2", "d4"]))).toEqual([[]]);
  expect(codes(mirrors, level("raid0", [], ["d1", "d4"]))).toEqual([[]]);
  expect(codes(mirrors, level("raid0", [], ["d1", "d2"]))).toEqual([["level-refused"]]);
  expect(codes(mirrors, level("raid0", [], ["d3", "d4"]))).toEqual([["level-refused"]]);
});

test("a stripe of two becomes single parity of four in one request; single parity of two has no way to double parity", () => {
  const [moment] = after(box("raid0", 2, 2), level("raid5", ["x1", "x2"]));
  expect([moment!.walked!.done, moment!.tolerance]).toEqual([true, [1]]);
  expect(codes(box("raid5", 2, 2), level("raid6", ["x1", "x2"]))).toEqual([["level-refused"]]);
  expect(codes(box("raid5", 2, 2), widen("x1"), level("raid6", ["x2"]))).toEqual([[], []]);
});

test.each<LayoutId>(["raid0", "span"])(
  "%s knows no hot spare, and no drive is copied out of it while it runs",
  (id) => {
    const plan = box(id, 2, 1);
    expect(codes(plan, { kind: "set-spare", pool: "p1", drive: "x1" })).toEqual([["spare-of-no-use"]]);
    const replace = (how: "attached" | "pulled"): StepBody => ({ kind: "replace-drive", drive: "d1", by: "x1", how });
    expect(codes(plan, replace("attached"))).toEqual([["no-live-replacement"]]);
    const [pulled] = after(plan, replace("pulled"));
    expect(pulled!.walked!.findings[0]!.message).toMatch(/Back it up first, then restore\.$/);
  },
);

test("nothing begins while a rewrite still runs, whatever stands between the two", () => {
  const plan = { ...box("raid5", 3, 4) };
  const together = (body: StepBody): StepBody => ({ ...body, together: true });
  const wipe: StepBody = { kind: "wipe-drive", drive: "x3" };
  const beside = [widen("x1"), together(wipe), together(widen("x2"))];
  const [first, second, third] = after(plan, ...beside).map(({ walked }) => walked!);
  expect([first!.done, second!.done, third!.done]).toEqual([true, true, false]);
  expect(third!.findings[0]).toMatchObject({
    code: "before-the-last-has-ended",
    message: expect.stringMatching(/^An earlier step is still/),
    mend: { command: { kind: "edit-step", changes: { together: false } } },
  });
  expect(codes(plan, widen("x1"), together(widen("x2")))[1]).toEqual(["before-the-last-has-ended"]);
  expect(codes(plan, widen("x1"), together(wipe), widen("x2"))).toEqual([[], [], []]);
});
