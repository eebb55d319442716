import "@/core/commands/recordingCommands";
import fc from "fast-check";
import { applyCommand } from "@/core/commands/applyCommand";
import { growingClinic } from "@/core/document/samples/growingClinic";
import type { Plan } from "@/core/document/plan";
import { cardsOf } from "@/core/carrying/card";
import { walkPlan } from "@/core/walk/walkPlan";
import { driveLabels, writeLabels } from "./writeLabels";
import { readSheet } from "./readSheet";
import { writeSheet } from "./writeSheet";

const hostile: Plan = {
  ...growingClinic,
  name: '</script><script>alert("x")</script>',
  drives: growingClinic.drives.map((drive) => ({ ...drive, label: `<img src=x onerror="alert(1)">` })),
  pools: growingClinic.pools.map((pool) => ({ ...pool, name: "<b>Images</b> & 'more'" })),
};

test("a sheet asks for nothing from any network, and no text of a plan is HTML in it", () => {
  for (const html of [
    writeSheet(walkPlan(hostile), "2026-11-26"),
    writeLabels(walkPlan(hostile), null, "2026-11-26"),
  ]) {
    expect(html).not.toMatch(/<img|<b>|alert\("x"\)<\/script>|onerror="/);
    expect(html.match(/<script>/g)).toHaveLength(1);
    expect(html).toContain("default-src 'none'");
    // In text a sign is written out, so that what is left of these would be markup.
    expect(html).not.toMatch(/https?:|<[^>]*(src|href)=|url\(|@import|<link/);
  }
});

test("each step stands on it with its acts, drives and times", () => {
  const walk = walkPlan(growingClinic);
  const html = writeSheet(walk, "2026-11-26").replaceAll("&#39;", "'");
  for (const { step, label, acts, checks } of cardsOf(walk)) {
    expect(html).toContain(`id="end-${step.id}"`);
    expect(html).toContain(label);
    for (const act of acts.first) expect(html).toContain(act.replaceAll("“", "“"));
    for (const { serial } of checks) if (serial) expect(html).toContain(serial);
  }
});

test("of a step that cannot be done, the sheet says why and not how", () => {
  const lacking: Plan = {
    ...growingClinic,
    drives: growingClinic.drives.map((drive, i) => (i === 1 ? { ...drive, state: "failed" } : drive)),
  };
  const walk = walkPlan(lacking);
  const cards = cardsOf(walk);
  expect(cards.some(({ blocks }) => blocks.length > 0)).toBe(true);
  const html = writeSheet(walk, "2026-11-26");
  for (const { step, blocks } of cards) expect(html.includes(`id="end-${step.id}"`)).toBe(blocks.length === 0);
  // Its script asks for the times of those only.
  const doable = cards.flatMap(({ step, blocks }) => (blocks.length === 0 ? [step.id] : []));
  expect(html).toContain(`"steps":${JSON.stringify(doable)}`);
});

test("labels: a drive where it is, where it goes and where it comes out", () => {
  const labels = driveLabels(walkPlan(growingClinic), null, "2026-11-26");
  const inBays = growingClinic.drives.filter(({ place }) => "bay" in place);
  expect(labels.filter(({ day }) => day === "26 Nov 2026").map(({ drive }) => drive)).toEqual(
    inBays.map(({ id }) => id),
  );
  const [replaced] = growingClinic.steps.filter((step) => step.kind === "replace-drive");
  const moved = labels.filter(({ day }) => day.startsWith("__"));
  expect(moved).toContainEqual(
    expect.objectContaining({ drive: replaced!.drive, place: "Out of bay 1", size: "4\u00a0TB" }),
  );
  expect(moved).toContainEqual(expect.objectContaining({ drive: replaced!.by, place: "Bay 1", serial: "…______" }));
});

const line = (steps: unknown[]) => JSON.stringify({ format: "cortijo-sheet", version: 1, plan: "x", steps });

test("the line is read back with what stands around it; what it is not is told", () => {
  const steps = [{ step: "s1", start: "2026-11-26T10:00Z", end: "2026-11-27T08:10Z", seen: "10.89" }];
  expect(readSheet(`Hello,\n${line(steps)}\nbest wishes`)).toEqual({ ok: true, plan: "x", steps });
  const wrong = (text: string) => {
    const read = readSheet(text);
    return read.ok ? "" : read.message;
  };
  expect(wrong("nothing")).toMatch(/not the line of a sheet/);
  expect(wrong('{"format":"cortijo-plan"}')).toMatch(/not the line of a sheet/);
  expect(wrong(line([]))).toMatch(/nothing to bring back/);
  expect(wrong(line([{ step: "s1", start: "today" }]))).toMatch(/damaged at \/steps\/0\/start/);
  expect(wrong(line(steps).replace('"version":1', '"version":2'))).toMatch(/newer/);
  expect(wrong("x".repeat(2 ** 20 + 1))).toMatch(/larger/);
  fc.assert(fc.property(fc.string(), (text) => typeof readSheet(text).ok === "boolean"));
});

test("steps of a sheet are recorded in the plan's order, all or none", () => {
  const [one, two, three] = growingClinic.steps.map(({ id }) => id) as [string, string, string];
  const done = (step: string, day: number) => ({
    step,
    start: `2026-12-0${day}T08:00Z`,
    end: `2026-12-0${day}T20:00Z`,
  });
  const record = (steps: { step: string; start: string; end?: string }[]) =>
    applyCommand(growingClinic, { kind: "record-steps", steps });
  const both = record([done(two, 2), done(one, 1), { step: three, start: "2026-12-03T08:00Z" }]);
  if (!both.ok) throw new Error(both.reason);
  expect(both.plan.history?.map(({ step, end }) => [step, end])).toEqual([
    [one, "2026-12-01T20:00Z"],
    [two, "2026-12-02T20:00Z"],
  ]);
  expect(both.plan.underWay).toEqual([{ step: three, start: "2026-12-03T08:00Z" }]);
  expect(record([done(two, 2)])).toMatchObject({ ok: false, reason: expect.stringMatching(/before it was not/) });
  expect(record([done(one, 1), done(three, 3)])).toMatchObject({ ok: false });
  expect(record([{ ...done(one, 2), end: "2026-12-01T08:00Z" }])).toMatchObject({ ok: false });
});
