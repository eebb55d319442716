import { besidesExposure, exposedWords } from "@/core/walk/exposedWords";
import { capital } from "@/core/words/capital";
import { driveOf } from "@/core/box/find";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { nameOfDrive, nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import type { Order, Schedule, ScheduledStep } from "@/core/schedule/schedulePlan";
import { moduleOf } from "@/core/steps/registry";
import { onlineWords } from "@/core/steps/swapping";
import { hoursWords } from "@/core/time/hoursWords";
import type { Walk, WalkedStep } from "@/core/walk/moment";
import { oneOrMany } from "@/core/words/counted";
import { createEvents, type EventAttributes } from "ics";

/** Entries of steps that need only a click are shown at least so long, in milliseconds. */
const SHORTEST = 15 * 60_000;

/** A number that grows with every export, so that calendar programs take the newer one: minutes since 2026. */
const sequenceOf = (now: number) => Math.max(0, Math.floor((now - Date.UTC(2026, 0, 1)) / 60_000));

/** What to do, in the entry's text: what happens, what is erased, how long it takes, what must not be done. */
function textOf(walked: WalkedStep, made: Walk, index: number): string {
  const before = made.moments[index]?.state.plan;
  const erased = walked.cost.erased.flatMap((id) => {
    const drive = before && driveOf(before, id);
    return drive && !drive.toBuy
      ? [`${nameOfDriveFirst(drive, made.family)} is ERASED. Compare the serial before you go on.`]
      : [];
  });
  const bare = walked.exposure.find((each) => each.redundancy <= 0);
  return [
    walked.does,
    ...erased,
    `Takes ${hoursWords(walked.cost.hours)}; ${onlineWords(walked.cost, rulesOfBox(before ?? made.plan))}.`,
    ...(bare ? [`${capital(exposedWords(bare, walked.cost.hours.expected))}. Do not switch off.`] : []),
    ...besidesExposure(walked)
      .filter((finding) => finding.severity !== "note")
      .map((finding) => finding.message),
  ].join("\n");
}

/**
 * Lines of at most 75 bytes, as RFC 5545 (3.1) wants them; the writer counts characters, of which some are several
 * bytes.
 */
function foldedByBytes(text: string): string {
  const encoder = new TextEncoder();
  return text
    .replace(/\r\n[ \t]/g, "")
    .split("\r\n")
    .map((line) => {
      let [folded, bytes] = ["", 0];
      for (const sign of line) {
        const length = encoder.encode(sign).length;
        if (bytes + length > 75) [folded, bytes] = [`${folded}\r\n `, 1];
        folded += sign;
        bytes += length;
      }
      return folded;
    })
    .join("\r\n");
}

/** A day and an hour before what needs a hand at the box. */
const alarmsFor = (title: string): EventAttributes["alarms"] => [
  { action: "display", description: title, trigger: { days: 1, before: true } },
  { action: "display", description: title, trigger: { hours: 1, before: true } },
];

/** What all entries of a plan have. */
const commonOf = ({ plan }: Walk, now: number): Partial<EventAttributes> => ({
  sequence: sequenceOf(now),
  lastModified: now,
  productId: "cortijo/plan",
  calName: plan.name,
  location: plan.box.name,
  busyStatus: "FREE",
  transp: "TRANSPARENT",
});

/** The entry of the i-th step; none for one that is not carried out. */
function entryOf(made: Walk, scheduled: ScheduledStep, i: number, calendar: string): EventAttributes[] {
  const walked = made.moments[i + 1]?.walked;
  if (!walked || scheduled.attention === null) return [];
  const atBox = scheduled.attention === "box";
  const title = `${moduleOf(walked.step).name} · ${made.plan.name}`;
  return [
    {
      uid: `${scheduled.step}.${calendar}@cortijo`,
      title,
      description: textOf(walked, made, i),
      start: scheduled.start,
      startInputType: "utc",
      startOutputType: "utc",
      end: Math.max(scheduled.end, scheduled.start + SHORTEST),
      endInputType: "utc",
      endOutputType: "utc",
      categories: [atBox ? "At the box" : "At the screen"],
      alarms: atBox ? alarmsFor(title) : [],
    },
  ];
}

/** The day on which drives are to be ordered. */
function orderEntry({ plan, family }: Walk, order: Order, calendar: string): EventAttributes {
  const drives = order.drives.flatMap((id) => driveOf(plan, id) ?? []);
  const names = drives.map((drive) =>
    nameOfDrive(drive, family)
      .replace(/^the /, "")
      .replace(/ on the shelf/, ""),
  );
  const [year, month, day] = order.orderOn.split("-").map(Number) as [number, number, number];
  return {
    uid: `order-${order.drives[0] ?? ""}.${calendar}@cortijo`,
    title: `Order ${oneOrMany(drives.length, "a drive", "drives")} · ${plan.name}`,
    description: `${names.join(", ")}. Expected on ${order.deliveredOn}.`,
    start: [year, month, day],
    duration: { days: 1 },
    categories: ["To buy"],
    alarms: [],
  };
}

/**
 * The plan as an iCalendar file (RFC 5545): an entry for each step with what to do, alarms a day and an hour before
 * those that need a hand at the box, and all-day entries for what is to be ordered. Identifiers stay the same from one
 * export to the next, so that a new one updates the entries of an old one.
 *
 * @param now in milliseconds since 1970
 * @example calendarFile(walked, schedule, Date.now()).startsWith("BEGIN:VCALENDAR")
 */
export function calendarFile(made: Walk, { calendar, steps, orders }: Schedule, now: number): string {
  const common = commonOf(made, now);
  const entries = [
    ...orders.map((order) => orderEntry(made, order, calendar.id)),
    ...steps.flatMap((scheduled, i) => entryOf(made, scheduled, i, calendar.id)),
  ].map((entry): EventAttributes => ({ ...common, ...entry }));
  const { error, value } = createEvents(entries);
  // Everything that goes in is made above, so this cannot be the owner's mistake.
  if (error || !value) throw new Error("The calendar file could not be written.", { cause: error });
  return foldedByBytes(value);
}
