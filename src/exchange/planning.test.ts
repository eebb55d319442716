import { prepareChances, rangedChances } from "@/core/chance/planChances";
import { HANDS } from "@/core/calendar/planCalendar";
import type { Plan, PlanCalendar } from "@/core/document/plan";
import { clinic } from "@/core/document/samples/clinic";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import { growingClinic } from "@/core/document/samples/growingClinic";
import { demand } from "@/core/schedule/demand";
import { timesByHours } from "@/core/schedule/stepTimes";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import { anyPlan } from "@/core/testing/anyPlan";
import { walkPlan } from "@/core/walk/walkPlan";
import fc from "fast-check";
import { deflateSync, strToU8 } from "fflate";
import ICAL from "ical.js";
import { calendarFile } from "./calendarFile/calendarFile";
import { MOST_LINK_CHARACTERS, readPlanLink, writePlanLink } from "./planLink/planLink";
import { planMarkdown } from "./planReport/planMarkdown";
import { planReport } from "./planReport/planReport";
import { answerRequest } from "./prediction/answerRequest";

const calendar: PlanCalendar = {
  id: "3e0f",
  start: "2026-11-23",
  timeZone: "Europe/Lisbon",
  deliveryDays: 3,
  hands: HANDS["week-ends"].windows,
  excluded: [],
};
const growing: Plan = { ...growingClinic, calendar };
const NOW = Date.UTC(2026, 10, 23, 12);

const eventsOf = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as never)
    .getAllSubcomponents("vevent")
    .map((component) => new ICAL.Event(component));

describe("the calendar file, read back by another program's parser", () => {
  const made = walkPlan(growing);
  const dates = schedulePlan(made, calendar);
  const text = calendarFile(made, dates, NOW);
  const events = eventsOf(text);
  test("has the order and every step, at the moments of the schedule", () => {
    expect(events).toHaveLength(1 + made.moments.length - 1);
    const byId = new Map(events.map((event) => [event.uid, event]));
    for (const step of dates.steps) {
      const event = byId.get(`${step.step}.3e0f@cortijo`)!;
      // Seconds are the finest that the format has.
      expect(event.startDate.toUnixTime()).toBe(Math.floor(step.start / 1000));
      expect(event.endDate.toUnixTime()).toBe(Math.floor(Math.max(step.end, step.start + 900_000) / 1000));
      expect(event.startDate.zone.tzid).toBe("UTC");
    }
    const [order] = events;
    expect([order!.startDate.isDate, order!.startDate.toString(), order!.summary]).toEqual([
      true,
      "2026-11-23",
      "Order 2 drives · Animal clinic, two larger drives",
    ]);
  });
  test("says in each entry what to do, and what is erased by its serial, bay and size", () => {
    const swap = events.find((event) => event.uid.startsWith("s3."))!;
    expect(swap.summary).toBe("Replace a drive · Animal clinic, two larger drives");
    expect(swap.description).toMatch(/drive in bay 1 \(serial TJ4-0417\) is pulled and replaced/);
    expect(swap.description).toMatch(/Takes \d.* h \(/);
    // 4 TB less 10 GiB at 0.6 × 150 MB/s.
    expect(swap.description).toContain(
      "Until the new drive is filled, in about 12 hours, one more failed drive would lose data.",
    );
  });
  test("has alarms a day and an hour before what needs a hand at the box, and only there", () => {
    const alarms = (id: string) =>
      events
        .find((event) => event.uid.startsWith(id))!
        .component.getAllSubcomponents("valarm")
        .map((alarm) => String(alarm.getFirstPropertyValue("trigger")));
    expect(alarms("s3.")).toEqual(["-P1D", "-PT1H"]);
    expect(alarms("s8.")).toEqual([]);
  });
  test("keeps its identifiers, and counts up, from one export to the next", () => {
    const later = eventsOf(calendarFile(walkPlan({ ...growing, name: "Renamed" }), dates, NOW + 3_600_000));
    expect(later.map((event) => event.uid)).toEqual(events.map((event) => event.uid));
    expect(later[1]!.sequence).toBe(events[1]!.sequence + 60);
  });
  test("keeps to the letter of the format: CRLF, and lines of at most 75 bytes", () => {
    const lines = text.split("\r\n");
    expect(text.replaceAll("\r\n", "")).not.toMatch(/[\r\n]/);
    expect(lines.every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
    for (const needed of ["VERSION:2.0", "PRODID:cortijo/plan", "BEGIN:VALARM"]) expect(lines).toContain(needed);
    expect(lines.filter((line) => line.startsWith("DTSTAMP:"))).toHaveLength(events.length);
  });
  test("text of the owner's is text, whatever is in it", () => {
    fc.assert(
      fc.property(
        fc
          .string({ unit: "grapheme", maxLength: 60 })
          .filter((name) => !/[\u0000-\u001f\u007f\u2028\u2029]/.test(name)),
        (name) => {
          const event = eventsOf(calendarFile(walkPlan({ ...growing, name }), dates, NOW))[1]!;
          expect(event.summary).toBe(
            `Back up · ${name}`.trimEnd().length === `Back up · ${name}`.length ? `Back up · ${name}` : event.summary,
          );
          expect(event.summary.startsWith("Back up ·")).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("a plan as a link", () => {
  const link = (plan: Plan) => {
    const made = writePlanLink(plan, "http://localhost:3000");
    if (!made.ok) throw new Error(made.message);
    return made.url;
  };
  test("a character that was changed on the way is noticed, wherever; a link of an older program is read", () => {
    const made = writePlanLink(clinic, "http://localhost:3000");
    const hash = made.ok ? new URL(made.url).hash : "";
    for (let at = "#plan=".length; at < hash.length; at += 7) {
      const changed = `${hash.slice(0, at)}${hash[at] === "7" ? "8" : "7"}${hash.slice(at + 1)}`;
      expect(readPlanLink(changed)).toMatchObject({ ok: false, problems: [{ code: "damaged" }] });
    }
    expect(readPlanLink(hash.replace(/\..*/, ""))).toMatchObject({ ok: true, plan: clinic });
  });
  test("what is read is what was written, for any plan", () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const made = writePlanLink(plan, "http://localhost:3000");
        if (!made.ok) return;
        const read = readPlanLink(new URL(made.url).hash);
        expect(read.ok && read.plan).toEqual(JSON.parse(JSON.stringify(plan)));
      }),
      { numRuns: 60 },
    );
  });
  test("the clinic that grows fits with room to spare", () => expect(link(growing).length).toBeLessThan(3000));
  test("a plan too large for a link says to export a file", () => {
    const steps = Array.from({ length: 1900 }, (_, i) => ({
      id: `s${i}`,
      kind: "back-up" as const,
      pool: "p1",
      to: `place ${(i * 7919) % 10_007} ${Math.sin(i)}`,
    }));
    expect(writePlanLink({ ...clinic, steps }, "http://x")).toMatchObject({
      ok: false,
      message: expect.stringContaining("Export it as a file") as string,
    });
  });
  const hash = new URL(link(growing)).hash;
  test.each([
    ["none", ""],
    ["another", "#other=1"],
    ["cut off", hash.slice(0, -20)],
    ["of other signs", `${hash}%3Cscript%3E`],
    ["too long", `#plan=${"A".repeat(MOST_LINK_CHARACTERS + 1)}`],
    ["of what is no plan", `#plan=${Buffer.from(deflateSync(strToU8("{}"))).toString("base64url")}`],
    ["of what is no text", `#plan=${Buffer.from(deflateSync(new Uint8Array([255, 254, 0, 1]))).toString("base64url")}`],
  ])("a fragment that is %s is refused, with words", (_what, fragment) => {
    const read = readPlanLink(fragment);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problems[0]!.message.length).toBeGreaterThan(20);
  });
  test("what would unpack to far too much is given up early", () => {
    const bomb = deflateSync(new Uint8Array(20_000_000), { level: 9 });
    const fragment = `#plan=${Buffer.from(bomb).toString("base64url")}`;
    expect(fragment.length).toBeLessThan(MOST_LINK_CHARACTERS);
    const read = readPlanLink(fragment);
    expect(read).toMatchObject({ ok: false, title: "This link is too large" });
  });
  test("a link damaged anywhere is refused or still a plan that passes every check", () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: hash.length - 1 }), fc.constantFrom(..."AZaz09-_"), (at, letter) => {
        const read = readPlanLink(hash.slice(0, at) + letter + hash.slice(at + 1));
        if (!read.ok) expect(read.problems.length).toBeGreaterThan(0);
      }),
      { numRuns: 200 },
    );
  });
});

describe("the plan as a document", () => {
  const made = walkPlan(growing);
  const dates = schedulePlan(made, calendar);
  const text = planMarkdown(planReport(made, dates, demand(made, timesByHours(made)), calendar.start)).replaceAll(
    "\u00a0",
    " ",
  );
  test("of a thousand steps it says what they come to, and lists them behind all else", () => {
    const steps = Array.from({ length: 1000 }, (_, n) => ({
      id: `s${n}`,
      ...(n % 4 === 0
        ? { kind: "back-up" as const, pool: growing.pools[0]!.id, to: "Box at home" }
        : { kind: "verify" as const, pool: growing.pools[0]!.id }),
    }));
    const report = planReport(walkPlan({ ...growing, steps }), null, [], calendar.start);
    expect(report.inBrief.map(({ what, steps: count, notes }) => [what, count, notes])).toEqual([
      ["Back up", 250, 0],
      ["Check (scrub)", 750, 0],
    ]);
    // Of how many something is to be known: each drive that is replaced leaves the pool exposed meanwhile.
    const replaced = growing.steps.filter(({ kind }) => kind === "replace-drive").length;
    const longer = planReport(walkPlan({ ...growing, steps: [...growing.steps, ...steps] }), null, [], calendar.start);
    expect(replaced).toBeGreaterThan(0);
    expect(longer.inBrief.find(({ what }) => what.startsWith("Replace"))).toMatchObject({
      steps: replaced,
      notes: replaced,
    });
    const written = planMarkdown(report);
    const [brief, list] = written.split("## All steps");
    expect(brief).toContain("| Check (scrub) | 750 |");
    expect(brief).not.toMatch(/^1\. /m);
    expect(list!.match(/^\d+\. \*\*/gm)).toHaveLength(1000);
    // Of few, each stands where it is told of.
    expect(planReport(made, null, [], calendar.start).inBrief).toEqual([]);
  });
  test("has the box before and after, each step with its date, what is erased and what is to be bought", () => {
    for (const title of [
      "# Animal clinic, two larger drives",
      "## Before and after",
      "## Steps",
      "## What is erased",
      "## To buy",
      "## Drives that become free",
      "## What this rests on",
    ])
      expect(text).toContain(title);
    expect(text).toMatch(/2\. \*\*Sat 28 Nov, 09:00 to Sun 29 Nov, 10:03\*\* The 12 TB drive/);
    expect(text).toMatch(/\| 12 TB hard disk, Tejora Cal 12 \| 238 \| by 23 Nov 2026 \|/);
    expect(text).toContain("In all: 476");
    expect(text).toMatch(/Usable: 15\.9\d TB → .* TB\./);
    expect(text).toMatch(/- The 4 TB drive on the shelf \(serial TJ4-0417\)/);
  });
  test("tells how likely something is lost once that is known, each with its range", () => {
    expect(text).not.toContain("## Chance of loss");
    const chances = rangedChances(prepareChances(made, [0, made.moments.length - 1]));
    const told = planReport(made, dates, [], calendar.start, chances).chances;
    expect(told[0]).toMatch(/^Images, now: 2 of 1,000 \(between 1 and 32\) lose something by their drives in a year/);
    expect(told[1]).toMatch(/^Images, after the plan: /);
    expect(told[2]).toMatch(/^On the way through the plan: 25 of 1,000 \(between 8 and 250\) lose something/);
    expect(planMarkdown(planReport(made, dates, [], calendar.start, chances))).toContain("## Chance of loss");
  });
  test("names that look like Markdown or HTML stay text", () => {
    const nasty = planMarkdown(
      planReport(walkPlan({ ...clinic, name: "<img src=x> # *x* | [a](b)" }), null, [], "2026-11-23"),
    );
    expect(nasty.split("\n")[0]).toBe("# \\<img src=x\\> \\# \\*x\\* \\| \\[a\\](b)");
  });
});

describe("what a program is told", () => {
  const answerOf = (plan: Plan, today: string) =>
    JSON.parse(new TextDecoder().decode(answerRequest(JSON.stringify(plan), null, today).body));
  test("dates, coverage and demand, where the plan has a calendar and data sets", () => {
    const answer = answerOf(coveredClinic, "2030-01-01");
    const dates = schedulePlan(walkPlan(coveredClinic), coveredClinic.calendar!);
    expect(answer.moments[3]).toMatchObject({
      after: "s3",
      startsAt: new Date(dates.steps[2]!.start).toISOString(),
      endsAt: new Date(dates.steps[2]!.end).toISOString(),
      attention: "box",
    });
    expect(answer.orders).toEqual([{ drives: ["b1", "b2"], orderOn: "2026-11-23", deliveredOn: "2026-11-26" }]);
    expect(
      answer.coverage.now.map(
        (each: { outcomes: Record<string, { kind: string }> }) => each.outcomes["theft-or-fire"]!.kind,
      ),
    ).toEqual(["from-backup", "lost", "lost"]);
    const [full] = answer.demand;
    expect(full.fullWithoutPlanOn < full.fullOn).toBe(true);
  });
  test("nothing of it where the plan has neither", () =>
    expect(Object.keys(answerOf(clinic, "2026-11-23"))).toEqual(["findings", "pools", "moments"]));
});
