import fc from "fast-check";
import { growingClinic } from "@/core/document/samples/growingClinic";
import type { LogEntry, Plan } from "@/core/document/plan";
import { EVENT_WORDS } from "@/core/logbook/logbookLines";
import { recordedTimes, workKinds } from "@/core/logbook/recordedTime";
import { readLogbookCsv, writeLogbookCsv } from "./logbookCsv";

const what = fc.constantFrom(...workKinds, ...(Object.keys(EVENT_WORDS) as "note"[]));
const hours = fc.integer({ min: 0, max: 400_000 }).map((value) => value / 1000);
const instant = (minutes: number) =>
  `${new Date(Date.parse("2024-01-01T00:00Z") + minutes * 60_000).toISOString().slice(0, 16)}Z`;

const anyEntry: fc.Arbitrary<Omit<LogEntry, "id">> = fc
  .record({
    what,
    text: fc.string({ maxLength: 40, unit: "grapheme" }).map((text) => text.replace(/[\r\n]/g, " ").trim()),
    start: fc.integer({ min: 0, max: 2_000_000 }),
    lasts: fc.option(fc.integer({ min: 0, max: 20_000 }), { nil: null }),
    byRates: fc.option(hours, { nil: null }),
    predicted: fc.option(fc.record({ low: hours, expected: hours, high: hours }), { nil: null }),
    leftOut: fc.boolean(),
  })
  .map(({ what: kind, text, start, lasts, byRates, predicted, leftOut }) => ({
    what: kind,
    text: text === "" ? "x" : text,
    start: instant(start),
    ...(lasts === null ? {} : { end: instant(start + lasts) }),
    ...(byRates === null ? {} : { byRates }),
    ...(predicted ? { predicted } : {}),
    ...(leftOut && (workKinds as readonly string[]).includes(kind) ? { leftOut: true as const } : {}),
  }));

const withLog = (entries: readonly Omit<LogEntry, "id">[]): Plan => ({
  ...growingClinic,
  log: entries.map((entry, i) => ({ ...entry, id: `l${i + 1}` })),
});

test("what is written is read back, in another plan; in the same one it is known", () => {
  fc.assert(
    fc.property(fc.uniqueArray(anyEntry, { minLength: 1, maxLength: 8, selector: ({ start }) => start }), (entries) => {
      const plan = withLog(entries);
      const text = writeLogbookCsv(plan);
      const read = readLogbookCsv(text, growingClinic);
      if (!read.ok) throw new Error(read.problems.join("\n"));
      const inOrder = [...entries].sort((a, b) => Date.parse(a.start) - Date.parse(b.start));
      expect(read).toEqual({ ok: true, known: 0, entries: inOrder });
      expect(readLogbookCsv(text, plan)).toEqual({ ok: true, known: entries.length, entries: [] });
    }),
    { numRuns: 100 },
  );
});

test("what was carried out counts in another plan as it counted here; what was stopped does not", () => {
  const done = { step: "s1", kind: "verify", label: "Check (scrub)", work: "check" as const, byRates: 10 };
  const plan: Plan = {
    ...growingClinic,
    history: [
      {
        ...done,
        id: "h1",
        start: "2026-11-01T08:00Z",
        end: "2026-11-01T20:00Z",
        outcome: "done",
        shown: { predicted: 1, seen: "=1+1" },
      },
      { ...done, id: "h2", start: "2026-11-02T08:00Z", end: "2026-11-02T10:00Z", outcome: "stopped" },
    ],
  };
  const text = writeLogbookCsv(plan);
  expect(text).toContain("'=1+1");
  const read = readLogbookCsv(text, growingClinic);
  if (!read.ok) throw new Error(read.problems.join("\n"));
  const ratios = (of: Plan) => recordedTimes(of).map(({ work, ratio }) => [work, ratio]);
  expect(ratios(withLog(read.entries))).toEqual(ratios(plan));
  expect(ratios(plan)).toEqual([["check", 1.2]]);
});

test.each([
  ["start\n2026-11-01", /what must be there/],
  ["start,what\n", /no entry/],
  ["start,what\nyesterday,check", /Entry 1: "yesterday" is no time.*2026-11-28T09:05Z/],
  ["start,what\n2026-02-30,check", /is no time/],
  ["start,what,end\n2026-11-02,check,2026-11-01", /before it begins/],
  ["start,what\n2026-11-01,dancing", /"dancing" is nothing/],
  ["start,what,usual_hours\n2026-11-01,check,many", /no number of hours/],
  [`start,what\n${"2026-11-01,note\n".repeat(5001)}`, /more than 5,000/],
])("%j is refused with what to do", (text, words) => {
  const read = readLogbookCsv(text, growingClinic);
  expect(read.ok ? "" : read.problems.join("\n")).toMatch(words);
});
