import fc from "fast-check";
import { hoursFor } from "../time/hours";
import { endOfWork } from "./endOfWork";

const HOUR = 3_600_000;
const begun = Date.parse("2026-11-26T10:00Z");
const at = (hours: number) => new Date(begun + hours * HOUR).toISOString();
const after = (hours: number, share: number, expected: number) =>
  endOfWork({ step: "s1", start: at(0), readings: [{ at: at(hours), share }] }, hoursFor(expected * 3600, 1));

test("without a reading it goes by what was expected", () => {
  const end = endOfWork({ step: "s1", start: at(0) }, { low: 6, expected: 10, high: 16 });
  expect(end).toEqual({ low: begun + 6 * HOUR, expected: begun + 10 * HOUR, high: begun + 16 * HOUR, by: null });
});

test("as fast as expected, half of it leaves half; twice as slow, nearly twice", () => {
  expect((after(5, 0.5, 10).expected - begun) / HOUR).toBeCloseTo(10, 3);
  const slow = (after(10, 0.5, 10).expected - begun) / HOUR;
  // What is left lies between 5 (as planned) and 10 (as so far), much nearer to 10.
  expect(slow).toBeGreaterThan(18.5);
  expect(slow).toBeLessThan(20);
});

test("it lies after the reading, between plan and pace, and the further it is the narrower", () => {
  const share = fc.double({ min: 0.01, max: 0.99, noNaN: true });
  const hours = fc.double({ min: 0.1, max: 200, noNaN: true });
  fc.assert(
    fc.property(share, hours, hours, (done, soFar, expected) => {
      const end = after(soFar, done, expected);
      const read = begun + soFar * HOUR;
      expect(end.low).toBeGreaterThan(read);
      expect(end.low).toBeLessThan(end.expected);
      expect(end.expected).toBeLessThan(end.high);
      const [plan, pace] = [expected * (1 - done), (soFar * (1 - done)) / done];
      const left = (end.expected - read) / HOUR;
      expect(left).toBeGreaterThanOrEqual(Math.min(plan, pace) * (1 - 1e-6));
      expect(left).toBeLessThanOrEqual(Math.max(plan, pace) * (1 + 1e-6));
      const later = after(soFar, Math.min(0.999, done * 1.01), expected);
      const width = (each: typeof end) => (each.high - read) / (each.low - read);
      expect(width(later)).toBeLessThanOrEqual(width(end) * (1 + 1e-4));
    }),
  );
});

test("a reading of nothing is none, and at the end nothing is left", () => {
  expect(after(1, 0, 10).by).toBeNull();
  expect(after(9, 1, 10).high).toBe(begun + 9 * HOUR);
});
