import fc from "fast-check";
import { Temporal } from "temporal-polyfill";
import { ZONES, zoned } from "../testing/zones";
import { nextFree } from "./nextFree";
import { HANDS, handsIdOf, type HandsId } from "./planCalendar";

describe("free hours", () => {
  test("a Friday noon waits for Saturday, 9:00", () => {
    const friday = Temporal.ZonedDateTime.from("2026-11-27T12:00[Europe/Lisbon]");
    expect(nextFree(friday, HANDS["week-ends"].windows, [], 45)!.toPlainDateTime().toString()).toBe(
      "2026-11-28T09:00:00",
    );
    expect(
      nextFree(friday, HANDS["week-ends"].windows, [{ from: "2026-11-28", to: "2026-11-29" }], 45)!
        .toPlainDateTime()
        .toString(),
    ).toBe("2026-12-05T09:00:00");
  });
  test("too late in the evening is the next evening", () => {
    const late = Temporal.ZonedDateTime.from("2026-11-27T21:30[Europe/Lisbon]");
    expect(nextFree(late, HANDS.evenings.windows, [], 45)!.toPlainDateTime().toString()).toBe("2026-11-28T18:00:00");
    expect(nextFree(late, HANDS.evenings.windows, [], 15)).toBe(late);
  });
  test("no hours within three years is said, not guessed", () => {
    expect(
      nextFree(
        Temporal.ZonedDateTime.from("2026-01-01T00:00[UTC]"),
        HANDS.evenings.windows,
        [{ from: "2026-01-01", to: "2036-01-01" }],
        15,
      ),
    ).toBeNull();
  });
  test("for any moment, zone, hours and days off: within the hours, on no day off, and nothing free before it", () => {
    const hands = fc.constantFrom(...(Object.keys(HANDS) as HandsId[]));
    // Through several changes of clocks, ends of months, a leap day, and a zone that skipped a day.
    const moment = fc.integer({ min: Date.UTC(2027, 11, 1), max: Date.UTC(2028, 11, 1) });
    fc.assert(
      fc.property(
        moment,
        fc.constantFrom(...ZONES),
        hands,
        fc.array(fc.integer({ min: 0, max: 420 }), { maxLength: 6 }),
        fc.constantFrom(15, 45, 120),
        (ms, zone, id, off, minutes) => {
          const from = zoned(ms, zone);
          const excluded = off.map((days) => {
            const day = Temporal.PlainDate.from("2027-12-01").add({ days });
            return { from: day.toString(), to: day.add({ days: 1 }).toString() };
          });
          const found = nextFree(from, HANDS[id].windows, excluded, minutes)!;
          const isFree = (at: Temporal.ZonedDateTime) => {
            const end = at.add({ minutes });
            const day = at.toPlainDate().toString();
            // The wall clock must be in the window at both ends, with no time of the clock passed twice between.
            return (
              !excluded.some((range) => range.from <= day && day <= range.to) &&
              HANDS[id].windows.some(
                (window) =>
                  window.days.includes(at.dayOfWeek) &&
                  at.toPlainTime().toString() >= `${window.from}:00` &&
                  end.toPlainDate().equals(at.toPlainDate()) &&
                  end.toPlainTime().toString() <= `${window.to}:00`,
              )
            );
          };
          expect(isFree(found)).toBe(true);
          expect(Temporal.ZonedDateTime.compare(found, from)).toBeGreaterThanOrEqual(0);
          for (let probe = from; Temporal.ZonedDateTime.compare(probe, found) < 0; probe = probe.add({ minutes: 53 }))
            expect(isFree(probe)).toBe(false);
        },
      ),
      { numRuns: 120 },
    );
  });
});

describe("at the edges", () => {
  const at = (text: string) => Temporal.ZonedDateTime.from(`${text}[UTC]`);
  const evening = [{ days: [1, 2, 3, 4, 5, 6, 7], from: "18:00", to: "22:00" }];
  test("what just fits is begun at once, what does not waits for the next window", () => {
    expect(nextFree(at("2026-11-23T21:15"), evening, [], 45)?.toPlainDateTime().toString()).toBe("2026-11-23T21:15:00");
    expect(nextFree(at("2026-11-23T21:16"), evening, [], 45)?.toPlainDateTime().toString()).toBe("2026-11-24T18:00:00");
    expect(nextFree(at("2026-11-23T18:00"), evening, [], 45)?.toPlainDateTime().toString()).toBe("2026-11-23T18:00:00");
  });
  test("of several windows of a day the earliest that is left, in whatever order they are given", () => {
    const day = [
      { days: [1], from: "18:00", to: "22:00" },
      { days: [1], from: "07:00", to: "09:00" },
    ];
    expect(nextFree(at("2026-11-23T00:00"), day, [], 45)?.hour).toBe(7);
    expect(nextFree(at("2026-11-23T08:30"), day, [], 45)?.hour).toBe(18);
  });
  test("hours that are ready-made are known again, hours of one's own are not", () => {
    for (const id of Object.keys(HANDS) as HandsId[]) expect(handsIdOf(structuredClone(HANDS[id].windows))).toBe(id);
    expect(handsIdOf(evening)).toBe("evenings");
    expect(handsIdOf([{ ...evening[0]!, to: "21:00" }])).toBeNull();
    expect(HANDS["evenings-and-week-ends"].windows.map((window) => window.days)).toEqual([
      [1, 2, 3, 4, 5],
      [6, 7],
    ]);
    expect(HANDS["any-day"].windows[0]).toEqual({ days: [1, 2, 3, 4, 5, 6, 7], from: "08:00", to: "22:00" });
    expect(HANDS["week-ends"].windows[0]!.days).toEqual([6, 7]);
    expect(HANDS["working-hours"].windows[0]!.days).toEqual([1, 2, 3, 4, 5]);
  });
});
