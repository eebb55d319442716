import fc from "fast-check";
import { Temporal } from "temporal-polyfill";
import { nominalBytes } from "../bytes/nominalBytes";
import { HANDS, type HandsId } from "../calendar/planCalendar";
import { emptyPlan } from "../document/emptyPlan";
import type { Plan, PlanCalendar, Step } from "../document/plan";
import { anyStepOn, numbered } from "../testing/anySteps";
import { drivesOfTB, testDrive } from "../testing/arbitraries";
import { zoned, ZONES } from "../testing/zones";
import { walkPlan } from "../walk/walkPlan";
import { busyMonths, monthsOf, monthView } from "./month";
import { schedulePlan } from "./schedulePlan";

const calendarOf = (more: Partial<PlanCalendar> = {}): PlanCalendar => ({
  id: "c1",
  start: "2026-11-23",
  timeZone: "Europe/Lisbon",
  deliveryDays: 3,
  hands: HANDS["week-ends"].windows,
  excluded: [],
  ...more,
});

/** Three 4 TB drives of single parity, and three of 8 TB to buy. */
function plan(steps: Parameters<typeof numbered>[1]): Plan {
  return numbered(
    {
      ...emptyPlan("x"),
      box: { name: "x", bays: 4, rules: { set: "classic-raid" } },
      drives: [
        ...drivesOfTB(4, 4, 4),
        ...[1, 2, 3].map((n) => testDrive(`x${n}`, nominalBytes(8000), { toBuy: true })),
      ],
      pools: [
        {
          id: "p1",
          name: "P",
          groups: [{ id: "g1", layout: "raid5", drives: ["d1", "d2", "d3"], options: {} }],
          spares: [],
          volumes: [],
        },
      ],
    },
    steps,
  );
}
const swap = (n: number) => ({ kind: "replace-drive" as const, drive: `d${n}`, by: `x${n}`, how: "pulled" as const });
const at = (ms: number, timeZone = "Europe/Lisbon") =>
  zoned(ms, timeZone).toPlainDateTime().toString({ smallestUnit: "minute" });

/** Whether a step names a drive, said without the code under test. */
const isNamed = (step: Step, drive: string) => JSON.stringify(Object.values(step).flat()).includes(`"${drive}"`);

/** Whoever takes a drive from the shelf, or moves one, stands before the box; everything else is done at the screen. */
const needsHands = (step: Step, before: Plan, after: Plan) =>
  before.drives.some((drive) => {
    const then = after.drives.find((each) => each.id === drive.id) ?? drive;
    return (
      JSON.stringify(drive.place) !== JSON.stringify(then.place) || ("shelf" in drive.place && isNamed(step, drive.id))
    );
  });

describe("a plan in the calendar", () => {
  test(
    "by hand: ordered on Monday, there on Thursday evening, swapped on Saturday, rebuilt through the night, the " +
      "next on Sunday",
    () => {
      const made = schedulePlan(walkPlan(plan([swap(1), swap(2)])), calendarOf());
      expect(made.orders).toEqual([{ drives: ["x1", "x2"], orderOn: "2026-11-23", deliveredOn: "2026-11-26" }]);
      expect(made.steps.map((step) => [at(step.start), at(step.end), step.attention, step.waitsFor])).toEqual([
        ["2026-11-28T09:00", "2026-11-28T21:20", "box", "hands"],
        ["2026-11-29T09:00", "2026-11-29T21:20", "box", "hands"],
      ]);
    },
  );
  test("delivery decides where hands are free before it", () => {
    const [first] = schedulePlan(walkPlan(plan([swap(1)])), calendarOf({ hands: HANDS["any-day"].windows })).steps;
    expect([at(first!.start), first!.waitsFor]).toEqual(["2026-11-26T18:00", "delivery"]);
  });
  test("what waits for a day is ordered in time for it, not on the first day", () => {
    const made = schedulePlan(
      walkPlan(plan([swap(1), { ...swap(2), notBefore: "2027-11-23" }])),
      calendarOf({ hands: HANDS["any-day"].windows }),
    );
    expect(made.orders.map((order) => [order.drives, order.orderOn])).toEqual([
      [["x1"], "2026-11-23"],
      [["x2"], "2027-11-20"],
    ]);
    expect(at(made.steps[1]!.start)).toBe("2027-11-23T18:00");
  });
  test("what needs no hand at the box waits only until somebody is awake", () => {
    const made = schedulePlan(
      walkPlan(plan([swap(1), { kind: "verify", pool: "p1" }])),
      calendarOf({ hands: HANDS.evenings.windows, deliveryDays: 0 }),
    );
    expect(at(made.steps[0]!.start)).toBe("2026-11-23T18:00");
    expect([at(made.steps[1]!.start), made.steps[1]!.attention]).toEqual(["2026-11-24T07:00", "screen"]);
  });
  test("12 hours through the night on which clocks go back end at the clock of 11 hours later", () => {
    const made = schedulePlan(
      walkPlan(plan([swap(1)])),
      calendarOf({ start: "2026-10-24", deliveryDays: 0, hands: [{ days: [6], from: "20:00", to: "22:00" }] }),
    );
    expect([at(made.steps[0]!.start), at(made.steps[0]!.end)]).toEqual(["2026-10-24T20:00", "2026-10-25T07:20"]);
  });
  test("days off without end are said to be in the way", () => {
    expect(
      schedulePlan(walkPlan(plan([swap(1)])), calendarOf({ excluded: [{ from: "2026-01-01", to: "2040-01-01" }] }))
        .stuck,
    ).toEqual({ step: "s1", why: "no-hour" });
  });
  test("what would last beyond 2100 is said to be too long, and dates end there", () => {
    const made = schedulePlan(walkPlan(plan([{ ...swap(1), notBefore: "2100-12-30" }, swap(2)])), calendarOf());
    expect(made.stuck).toEqual({ step: "s1", why: "too-long" });
    expect(made.steps.map((step) => at(step.end).slice(0, 10))).toEqual(["2100-12-31", "2100-12-31"]);
  });
  test("for any steps, zones, hours and paces: never before its time, never in the night, and as long as it takes", () => {
    const steps = fc.array(anyStepOn(plan([])), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(
        steps,
        fc.constantFrom(...ZONES),
        fc.constantFrom(...(Object.keys(HANDS) as HandsId[])),
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 0, max: 800 }),
        fc.constantFrom("low" as const, "expected" as const, "high" as const),
        (bodies, timeZone, id, deliveryDays, later, pace) => {
          const calendar = calendarOf({
            timeZone,
            deliveryDays,
            hands: HANDS[id].windows,
            start: Temporal.PlainDate.from("2027-01-01").add({ days: later }).toString(),
          });
          const made = walkPlan(plan(bodies));
          const { steps: scheduled, orders, begin, end } = schedulePlan(made, calendar, pace);
          let ended = begin;
          scheduled.forEach((step, i) => {
            const walked = made.moments[i + 1]!.walked!;
            if (!walked.done) return;
            expect(step.start).toBeGreaterThanOrEqual(ended);
            expect(Math.abs(step.end - step.start - walked.cost.hours[pace] * 3_600_000)).toBeLessThanOrEqual(1);
            const start = zoned(step.start, timeZone);
            const [before, after] = [made.moments[i]!.state.plan, made.moments[i + 1]!.state.plan];
            const hands = needsHands(walked.step, before, after);
            expect([walked.step.kind, step.attention]).toEqual([walked.step.kind, hands ? "box" : "screen"]);
            const windows = hands ? calendar.hands : [{ days: [1, 2, 3, 4, 5, 6, 7], from: "07:00", to: "23:00" }];
            const minutes = hands ? 45 : 15;
            expect(
              windows.some(
                (window) =>
                  window.days.includes(start.dayOfWeek) &&
                  start.toPlainTime().toString().slice(0, 5) >= window.from &&
                  start.add({ minutes }).toPlainTime().toString().slice(0, 5) <= window.to,
              ),
            ).toBe(true);
            ended = step.end;
          });
          expect(end).toBe(ended);
          for (const order of orders) {
            expect(order.orderOn >= calendar.start).toBe(true);
            expect(Temporal.PlainDate.from(order.orderOn).until(order.deliveredOn).days).toBe(deliveryDays);
          }
          // Each drive to buy that a step takes in hand is ordered once, and there before the step begins.
          scheduled.forEach((step, i) => {
            const walked = made.moments[i + 1]!.walked!;
            if (!walked.done) return;
            for (const drive of made.moments[i]!.state.plan.drives) {
              if (!drive.toBuy || !isNamed(walked.step, drive.id)) continue;
              const own = orders.filter((order) => order.drives.includes(drive.id));
              expect([drive.id, own.length]).toEqual([drive.id, 1]);
              const day = zoned(step.start, timeZone).toPlainDate().toString();
              expect(day >= own[0]!.deliveredOn).toBe(true);
            }
          });
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe("a month", () => {
  test("runs over whole weeks, Monday first, and each of its days is there once", () => {
    const made = schedulePlan(walkPlan(plan([swap(1)])), calendarOf());
    fc.assert(
      fc.property(fc.integer({ min: 2020, max: 2040 }), fc.integer({ min: 1, max: 12 }), (year, month) => {
        const text = `${year}-${String(month).padStart(2, "0")}`;
        const days = monthView(made, text).flat();
        const own = Temporal.PlainYearMonth.from(text);
        expect(days.filter((day) => day.inMonth).map((day) => day.number)).toEqual(
          Array.from({ length: own.daysInMonth }, (_, i) => i + 1),
        );
        expect(days.map((day) => Temporal.PlainDate.from(day.day).dayOfWeek)).toEqual(days.map((_, i) => (i % 7) + 1));
      }),
    );
  });
  test("a step stands on each day that it runs, with where it begins and ends; orders and deliveries on theirs", () => {
    const made = schedulePlan(
      walkPlan(plan([swap(1), swap(2)])),
      calendarOf({ hands: [{ days: [1, 2, 3, 4, 5, 6, 7], from: "18:00", to: "22:00" }] }),
    );
    const days = monthView(made, "2026-11").flat();
    const on = (day: string) => days.find((each) => each.day === day)!;
    expect(on("2026-11-23").orders).toEqual(["x1", "x2"]);
    expect(on("2026-11-26").deliveries).toEqual(["x1", "x2"]);
    expect(on("2026-11-26").steps.map((step) => [step.scheduled.step, step.begins, step.ends])).toEqual([
      ["s1", true, false],
    ]);
    expect(on("2026-11-27").steps.map((step) => [step.scheduled.step, step.begins, step.ends])).toEqual([
      ["s1", false, true],
      ["s2", true, false],
    ]);
    expect(on("2026-11-24").steps).toEqual([]);
  });
  test("a plan over years lists every month between, and those in which something is to be done", () => {
    const made = schedulePlan(walkPlan(plan([swap(1), { ...swap(2), notBefore: "2028-02-29" }])), calendarOf());
    expect(monthsOf(made)).toHaveLength(17);
    expect(busyMonths(made)).toEqual(["2026-11", "2028-02", "2028-03"]);
  });
});
