import type { LogEntry } from "../document/plan";
import { freeRecordId, fullnessOf, NEARLY_FULL, oldestRecords } from "./records";

const entry = (i: number): LogEntry => ({ id: `l${i}`, what: "note", text: "", start: `20${10 + (i % 80)}-01-01` });
const entries = (count: number) => Array.from({ length: count }, (_, i) => entry(i));

test("the records are full by their number, or by what they take in a file", () => {
  expect(fullnessOf({})).toBe(0);
  expect(fullnessOf({ log: entries(2500) })).toBeCloseTo(0.5, 6);
  const long = entries(3000).map((each) => ({ ...each, text: "x".repeat(200) }));
  expect(fullnessOf({ log: long })).toBeGreaterThan(NEARLY_FULL);
});

test("the oldest quarter goes to a file, whatever list it is in, and ids are never given twice", () => {
  const done = { step: "s", kind: "verify", label: "", outcome: "done" as const, end: "2030-01-02" };
  const history = [
    { ...done, id: "h1", start: "2001-01-01" },
    { ...done, id: "h2", start: "2030-01-01" },
  ];
  const log = [
    { ...entry(1), start: "2002-01-01" },
    { ...entry(2), start: "2031-01-01" },
    { ...entry(3), start: "2031-01-02" },
  ];
  expect(oldestRecords({ history, log })).toEqual(["h1", "l1"]);
  expect(freeRecordId("l", [entry(7), entry(2)])).toBe("l8");
  expect(freeRecordId("h", [{ id: "l9" }])).toBe("h1");
});
