import fc from "fast-check";
import { KiB, MiB } from "../bytes/bytes";
import { formatExactBytes } from "../bytes/formatBytes";
import type { LayoutId, Plan, StepBody } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { attach, claim, widen } from "../testing/stepsInShort";
import { poolsAt } from "../walk/poolsAt";
import { walkPlan } from "../walk/walkPlan";

// What the kernel's RAID driver keeps through changes, as it was measured, stated here on its own.

const inMiB = (sizes: number[]) => sizes.map((each) => each * MiB);
const box = (layout: LayoutId, mib: number[], shelf: number[] = []): Plan =>
  boxWith("linux-host", layout, inMiB(mib), inMiB(shelf), {}, 24);
const sizes = (plan: Plan, ...steps: StepBody[]): number[] => {
  const { moments } = walkPlan(numbered(plan, steps));
  expect(moments.flatMap((moment) => (moment.walked && !moment.walked.done ? [moment.walked.findings] : []))).toEqual(
    [],
  );
  return moments.map((moment) => moment.capacities.pool);
};
const level = (layout: LayoutId, drives: string[], without?: string[]): StepBody => ({
  kind: "change-level",
  group: "g1",
  layout,
  drives,
  ...(without ? { without } : {}),
});

test("a mirror that becomes single parity keeps its used part and its chunk, and the other way round", () => {
  expect(sizes(box("raid1", [800, 800], [800]), level("raid5", ["x1"]))).toEqual([837_812_224, 1_675_624_448]);
  expect(sizes(box("raid5", [800, 800, 800]))).toEqual([1_673_527_296]);
  expect(sizes(box("raid5", [400, 400]), level("raid1", []))).toEqual([417_333_248, 417_333_248]);
  expect(sizes(box("raid1", [400, 400]))).toEqual([418_381_824]);
});

test("a replacement takes the array's offset, also the first one named, and a claim counts from it", () => {
  const made = sizes(box("raid1", [400, 400], [1200, 1200]), attach("d1", "x1"), attach("d2", "x2"), claim());
  expect(made).toEqual([418_381_824, 418_381_824, 418_381_824, 1_257_242_624]);
});

test("a claim is held back by a hot spare that stands in the array, and says so", () => {
  const spare: StepBody = { kind: "set-spare", pool: "p1", drive: "d1" };
  const held = [attach("d1", "x1"), spare, claim()];
  const plan = box("raid5", [400, 800, 800], [800]);
  const [made, , , after] = sizes(plan, ...held);
  expect(after).toBe(made);
  const { moments } = walkPlan(numbered(plan, [...held, { kind: "remove-spare", drive: "d1" }, claim()]));
  const [note] = moments[3]!.walked!.findings;
  expect(note).toMatchObject({ code: "claims-nothing", message: expect.stringMatching(/hot spare .* holds it back/) });
  expect(moments.at(-1)!.capacities.pool).toBeGreaterThan(1.9 * made!);
});

test("when the smallest has left, its space waits for a claim: mirrors, and double parity made single", () => {
  const three = sizes(box("raid1", [400, 800, 1200]), { kind: "remove-drive", drive: "d1" }, claim());
  expect(three).toEqual([three[0], three[0], expect.any(Number)]);
  expect(three[2]).toBeGreaterThan(1.9 * three[0]!);
  const parity = sizes(box("raid6", [400, 800, 800, 800]), level("raid5", [], ["d1"]), claim());
  expect(parity[1]).toBe(parity[0]);
  expect(parity[2]).toBeGreaterThan(1.9 * parity[0]!);
});

test("a spare fits by the used part: it may be smaller than every member, by no byte smaller than what is used", () => {
  const plan = box("raid5", [600, 600, 600], [400]);
  const steps: StepBody[] = [{ kind: "set-spare", pool: "p1", drive: "s1" }];
  const withSpare = (bytes: number) =>
    walkPlan(numbered({ ...plan, drives: [...plan.drives, testDrive("s1", bytes)] }, steps)).moments[1]!.walked!;
  // 2 MiB before the data, and 598 MiB in whole chunks of 512 KiB: all of it.
  expect(withSpare(600 * MiB).done).toBe(true);
  const short = withSpare(600 * MiB - 1);
  expect(short.findings.map((finding) => finding.code)).toContain("spare-too-small");
  const uneven = { ...plan, drives: plan.drives.map((drive) => ({ ...drive, bytes: drive.bytes + 300 * KiB })) };
  const fits = walkPlan(numbered({ ...uneven, drives: [...uneven.drives, testDrive("s1", 600 * MiB)] }, steps));
  expect(fits.moments[1]!.walked!.done).toBe(true);
});

test("a claim after a rewrite says between what the size lies, and so does the pool from then on", () => {
  const replaced = ["d1", "d2", "d3", "x1"].map((id, i) => attach(id, `x${i + 2}`));
  const plan = box("raid5", [400, 400, 400], [400, 800, 800, 800, 800]);
  const moment = walkPlan(numbered(plan, [widen("x1"), ...replaced, claim()])).moments.at(-1)!;
  // Four of 800 MiB, with 2 MiB before the data as it was made, or with none.
  const [least, most] = [3 * 798 * MiB, 3 * 800 * MiB];
  expect(moment.capacities.pool).toBe(least);
  const said = moment.walked!.findings.find(({ code }) => code === "claim-after-rewrite")!.message;
  expect(said).toContain(`${formatExactBytes(least)} to ${formatExactBytes(most)}`);
  const pool = poolsAt(moment, "TB")[0]!.findings.find(({ code }) => code === "size-open")!.message;
  expect(pool).toContain(`up to ${formatExactBytes(most - least)} more`);
});

/** An array as the measured rules describe it, with nothing of the code under test. */
interface Model {
  level: "raid1" | "raid5" | "raid6" | "raid10";
  members: { id: string; bytes: number }[];
  offset: number;
  chunk: number;
  used: number;
  rewritten: boolean;
}

const down = (bytes: number, unit: number) => Math.floor(bytes / unit) * unit;
const least = (model: Model) => Math.min(...model.members.map((each) => each.bytes));

function made(kind: Model["level"], members: Model["members"]): Model {
  let headroom = 128 * MiB;
  while (headroom > members[0]!.bytes / 1024 && (kind === "raid1" || headroom / 2 >= MiB)) headroom /= 2;
  const offset = Math.ceil((headroom + 24 * 512) / MiB) * MiB;
  const chunk = kind === "raid1" ? 64 * KiB : 512 * KiB;
  const model: Model = { level: kind, members, offset, chunk, used: 0, rewritten: false };
  return { ...model, used: down(least(model) - offset, chunk) };
}

function sizeOf({ level: kind, members, used }: Pick<Model, "level" | "members" | "used">): number {
  const n = members.length;
  if (kind === "raid1") return used;
  if (kind === "raid10") return Math.floor((n * (used / (512 * KiB))) / 2) * 512 * KiB;
  return (n - (kind === "raid5" ? 1 : 2)) * used;
}

const someSize = fc.oneof(
  fc.integer({ min: 400, max: 3000 }).map((mib) => mib * MiB),
  fc.integer({ min: 400 * MiB, max: 3000 * MiB }),
);
const change = fc.record({
  kind: fc.constantFrom<Change["kind"]>("widen", "level", "fewer", "replace", "replace", "claim", "claim"),
  bytes: someSize,
  at: fc.nat(),
});
interface Change {
  kind: "widen" | "level" | "fewer" | "replace" | "claim";
  bytes: number;
  at: number;
}
type Next = { step: StepBody; model: Model } | null;

/** What each change makes of an array, where the driver does it. */
const CHANGES: Record<Change["kind"], (model: Model, joining: Model["members"][number], at: number) => Next> = {
  widen: (model, joining) => ({
    step: widen(joining.id),
    model: { ...model, members: [...model.members, joining], rewritten: model.rewritten || model.level !== "raid1" },
  }),
  level: (model, joining) => {
    const { level: from, members } = model;
    if (from === "raid1" ? members.length !== 2 : from !== "raid5" || members.length < 3) return null;
    const to = from === "raid1" ? "raid5" : "raid6";
    return {
      step: level(to, [joining.id]),
      model: { ...model, level: to, members: [...members, joining], rewritten: true },
    };
  },
  fewer: (model, _joining, at) => {
    if (model.level !== "raid6") return null;
    const { id } = model.members[at]!;
    const members = model.members.filter((each) => each.id !== id);
    return { step: level("raid5", [], [id]), model: { ...model, level: "raid5", members, rewritten: true } };
  },
  replace: (model, joining, at) => ({
    step: attach(model.members[at]!.id, joining.id),
    model: { ...model, members: model.members.map((each, i) => (i === at ? joining : each)) },
  }),
  claim: (model) => ({
    step: claim(),
    model: { ...model, used: Math.max(model.used, down(least(model) - model.offset, model.chunk)) },
  }),
};

test("sizes of a Linux host through any changes follow the measured rules to the byte", () => {
  const tried = { runs: 0, changes: 0 };
  fc.assert(
    fc.property(
      fc.constantFrom<Model["level"]>("raid1", "raid5", "raid6", "raid10"),
      fc.array(someSize, { minLength: 2, maxLength: 5 }),
      fc.array(change, { maxLength: 7 }),
      (kind, bytes, changes) => {
        if (kind === "raid6" && bytes.length < 4) return;
        const comes = changes.map((each) => each.bytes);
        const plan = boxWith("linux-host", kind, bytes, comes, {}, 24);
        const first = made(
          kind,
          bytes.map((each, i) => ({ id: `d${i + 1}`, bytes: each })),
        );
        const done: { step: StepBody; model: Model; open: boolean }[] = [];
        for (const [i, { kind: wanted, bytes: size, at }] of changes.entries()) {
          const model = done.at(-1)?.model ?? first;
          if (["widen", "level", "replace"].includes(wanted) && size < model.offset + model.used) continue;
          const next = CHANGES[wanted](model, { id: `x${i + 1}`, bytes: size }, at % model.members.length);
          if (!next) continue;
          const most = sizeOf({ ...model, used: down(least(model), model.chunk) });
          const grown = sizeOf(next.model) > sizeOf(model);
          done.push({ ...next, open: wanted === "claim" && model.rewritten && grown && most > sizeOf(next.model) });
        }
        const taken = done.map(({ step }) => step);
        const { moments } = walkPlan(numbered(plan, taken));
        for (const { walked } of moments)
          expect(walked?.findings.filter((each) => each.severity === "block") ?? []).toEqual([]);
        const expected = [first, ...done.map(({ model }) => model)].map(sizeOf);
        expect(moments.map((moment) => moment.capacities.pool)).toEqual(expected);
        // Where a claim comes after a rewrite, its size is a range, and the step says so.
        const said = moments.map(({ walked }) => walked?.findings.some(({ code }) => code === "claim-after-rewrite"));
        expect(said.slice(1)).toEqual(done.map(({ open }) => open));
        tried.runs += 1;
        tried.changes += done.length;
      },
    ),
    { numRuns: 300 },
  );
  expect(tried.changes).toBeGreaterThan(tried.runs);
});
