import { isDay } from "../time/days";
import { minutesBetween } from "../time/clock";
import { LEAST_HANDS_MINUTES } from "./limits";
import type { HandsWindow, Plan, PlanCalendar } from "./plan";
import type { Problem } from "./problem";
import { recordProblems } from "./recordProblems";

type Named = { id: string; pointer: string; what: string };

function duplicateIds(things: readonly Named[]): Problem[] {
  const seen = new Map<string, Named>();
  return things.flatMap((thing) => {
    const first = seen.get(thing.id);
    if (!first) {
      seen.set(thing.id, thing);
      return [];
    }
    return [
      {
        code: "duplicate-id",
        message:
          `The id "${thing.id}" is already that of ${first.what} at ${first.pointer}. Give this ` +
          `${thing.what.replace(/^an? /, "")} another one.`,
        pointer: `${thing.pointer}/id`,
      },
    ];
  });
}

function placeProblems(plan: Plan): Problem[] {
  const inBay = new Map<number, string>();
  const bySerial = new Map<string, string>();
  return plan.drives.flatMap((drive, i): Problem[] => {
    const problems: Problem[] = [];
    if ("bay" in drive.place) {
      const { bay } = drive.place;
      const other = inBay.get(bay);
      if (bay > plan.box.bays)
        problems.push({
          code: "no-such-bay",
          message:
            `Drive "${drive.id}" is in bay ${bay}, but the box has ${plan.box.bays}. Put it in another bay or on ` +
            "the shelf.",
          pointer: `/drives/${i}/place/bay`,
        });
      if (other !== undefined)
        problems.push({
          code: "bay-taken",
          message: `Bay ${bay} holds drive "${other}" already. Put "${drive.id}" in another bay or on the shelf.`,
          pointer: `/drives/${i}/place/bay`,
        });
      else inBay.set(bay, drive.id);
    }
    const serial = drive.serial?.trim().toLowerCase();
    if (serial) {
      const other = bySerial.get(serial);
      if (other !== undefined)
        problems.push({
          code: "duplicate-serial",
          message:
            `Drives "${other}" and "${drive.id}" have the same serial ${drive.serial}. Remove the one that is ` +
            "entered twice or correct its serial.",
          pointer: `/drives/${i}/serial`,
        });
      else bySerial.set(serial, drive.id);
    }
    return problems;
  });
}

function memberProblems(plan: Plan): Problem[] {
  const known = new Set(plan.drives.map((drive) => drive.id));
  const takenBy = new Map<string, string>();
  const problems: Problem[] = [];
  const take = (drive: string, owner: string, pointer: string) => {
    const other = takenBy.get(drive);
    if (!known.has(drive))
      problems.push({
        code: "no-such-drive",
        message: `The plan has no drive "${drive}". Add it to the drives or take it out here.`,
        pointer,
      });
    else if (other !== undefined)
      problems.push({
        code: "drive-used-twice",
        message:
          `Drive "${drive}" belongs to ${other} already. A drive can be in one place only; take it out here or ` +
          "there.",
        pointer,
      });
    else takenBy.set(drive, owner);
  };
  plan.pools.forEach((pool, p) => {
    pool.groups.forEach((group, g) => {
      group.drives.forEach((drive, d) => take(drive, `group "${group.id}"`, `/pools/${p}/groups/${g}/drives/${d}`));
      group.spares?.forEach((drive, d) =>
        take(drive, `the spares of group "${group.id}"`, `/pools/${p}/groups/${g}/spares/${d}`),
      );
    });
    pool.helpers?.forEach(({ drive }, h) =>
      take(drive, `the cache of pool "${pool.id}"`, `/pools/${p}/helpers/${h}/drive`),
    );
    if (
      pool.landsFor !== undefined &&
      (pool.landsFor === pool.id || !plan.pools.some((other) => other.id === pool.landsFor))
    ) {
      problems.push({
        code: "no-such-pool",
        message:
          `Pool "${pool.id}" lands data for "${pool.landsFor}", which is no other pool of the plan. Name another ` +
          "or take it out.",
        pointer: `/pools/${p}/landsFor`,
      });
    }
    pool.spares.forEach((drive, d) => take(drive, `the spares of pool "${pool.id}"`, `/pools/${p}/spares/${d}`));
  });
  return problems;
}

/** A day that is not in the calendar; none where no day is given. */
function notADay(day: string | undefined, pointer: string): Problem[] {
  if (day === undefined || isDay(day)) return [];
  return [
    { code: "no-such-day", message: `There is no day ${day}. Write a day of the calendar as YYYY-MM-DD.`, pointer },
  ];
}

function dataSetProblems(plan: Plan): Problem[] {
  const volumes = new Set(plan.pools.flatMap((pool) => pool.volumes.map((volume) => volume.id)));
  const drives = new Set(plan.drives.map((drive) => drive.id));
  return (plan.dataSets ?? []).flatMap((set, i): Problem[] => {
    if ((set.volume === undefined) === (set.drive === undefined)) {
      const message = `The data set "${set.id}" must name the volume or the drive that it is on: one of the two.`;
      return [{ code: "no-one-place", message, pointer: `/dataSets/${i}` }];
    }
    if (set.drive !== undefined) {
      const message =
        `The data set "${set.id}" is on the drive "${set.drive}", which the plan does not have. Name one that is ` +
        "there, or take the data set out.";
      return drives.has(set.drive) ? [] : [{ code: "no-such-drive", message, pointer: `/dataSets/${i}/drive` }];
    }
    return volumes.has(set.volume ?? "")
      ? []
      : [
          {
            code: "no-such-volume",
            message:
              `The data set "${set.id}" is on the volume "${set.volume}", which no pool has. Name one that is ` +
              "there, or take the data set out.",
            pointer: `/dataSets/${i}/volume`,
          },
        ];
  });
}

function backupProblems(plan: Plan): Problem[] {
  const sets = new Set(plan.dataSets?.map((set) => set.id));
  const drives = new Set(plan.drives.map((drive) => drive.id));
  return (plan.backups ?? []).flatMap((backup, i): Problem[] => {
    const problems = backup.dataSets.flatMap((set, d): Problem[] => {
      const message = `The backup "${backup.id}" holds "${set}", which is no data set of the plan.`;
      return sets.has(set) ? [] : [{ code: "no-such-data-set", message, pointer: `/backups/${i}/dataSets/${d}` }];
    });
    if (backup.drive !== undefined && !drives.has(backup.drive))
      problems.push({
        code: "no-such-drive",
        message: `The backup "${backup.id}" is on the drive "${backup.drive}", which the plan does not have.`,
        pointer: `/backups/${i}/drive`,
      });
    return [...problems, ...notADay(backup.lastVerified, `/backups/${i}/lastVerified`)];
  });
}

function dayProblems(plan: Plan): Problem[] {
  return [
    ...notADay(plan.calendar?.start, "/calendar/start"),
    ...plan.drives.flatMap(({ since }, i) => notADay(since?.slice(0, 10), `/drives/${i}/since`)),
    ...plan.pools.flatMap(({ paritySchedule }, p) =>
      notADay(paritySchedule?.lastUpdate?.slice(0, 10), `/pools/${p}/paritySchedule/lastUpdate`),
    ),
    ...(plan.calendar?.excluded ?? []).flatMap(({ from, to }, i): Problem[] => {
      const message = `These days end on ${to}, before they begin on ${from}. Swap the two.`;
      return [
        ...notADay(from, `/calendar/excluded/${i}/from`),
        ...notADay(to, `/calendar/excluded/${i}/to`),
        ...(to < from ? [{ code: "days-backwards", message, pointer: `/calendar/excluded/${i}` }] : []),
      ];
    }),
    ...plan.steps.flatMap((step, i) => [
      ...notADay(step.notBefore, `/steps/${i}/notBefore`),
      ...notADay(step.lifted?.on, `/steps/${i}/lifted/on`),
    ]),
  ];
}

function calendarProblems(calendar: PlanCalendar): Problem[] {
  return [
    ...(isTimeZone(calendar.timeZone)
      ? []
      : [
          {
            code: "no-such-time-zone",
            message: `No time zone is called "${calendar.timeZone}". Use an IANA name, for instance "Europe/Lisbon".`,
            pointer: "/calendar/timeZone",
          },
        ]),
    ...calendar.hands.flatMap((window, i) => {
      const problem = handsProblem(window);
      return problem ? [{ ...problem, pointer: `/calendar/hands/${i}` }] : [];
    }),
  ];
}

/**
 * What is wrong with hours at the box: that they end before they begin, or are too short for anything to be begun.
 *
 * @example handsProblem({ days: [6], from: "10:00", to: "10:20" })?.code // "hours-too-short"
 */
export function handsProblem({ from, to }: HandsWindow): Omit<Problem, "pointer"> | null {
  if (from >= to) {
    const message = `These hours end at ${to}, and begin at ${from}. They must end later on the same day.`;
    return { code: "hours-backwards", message };
  }
  if (minutesBetween(from, to) >= LEAST_HANDS_MINUTES) return null;
  const message =
    `These hours, from ${from} to ${to}, are too short: to begin a step at the box takes ${LEAST_HANDS_MINUTES} ` +
    "minutes. Make them longer.";
  return { code: "hours-too-short", message };
}

/**
 * Sizes of which the sum is no longer exact: drives together, the volumes of a pool, and the data sets. What is worked
 * out from them would be off by some bytes, and nothing would say so.
 */
function sumProblems(plan: Plan): Problem[] {
  const tooMuch = (what: string, sizes: readonly { bytes: number }[], pointer: string): Problem[] => {
    const total = sizes.reduce((sum, { bytes }) => sum + BigInt(bytes), 0n);
    const message =
      `${what} come to more than 9 PB together (9 007 199 254 740 991 bytes), beyond which Cortijo cannot count ` +
      "exactly. Correct a size or take some out.";
    return total > BigInt(Number.MAX_SAFE_INTEGER) ? [{ code: "too-much-together", message, pointer }] : [];
  };
  return [
    ...tooMuch("The drives", plan.drives, "/drives"),
    ...plan.pools.flatMap((pool, p) => tooMuch("The volumes of this pool", pool.volumes, `/pools/${p}/volumes`)),
    ...tooMuch("The data sets", plan.dataSets ?? [], "/dataSets"),
  ];
}

/** Inputs of the chance of loss that are shares of 1, or shares a year. */
const SHARES = /^(diskYear\d|flash|theftOrFire|deletion|damageOf\w+|restoreFails\w+)$/;

function chanceProblems(inputs: NonNullable<Plan["chance"]>["inputs"]): Problem[] {
  return Object.entries(inputs ?? {}).flatMap(([name, { low, expected, high }]): Problem[] => {
    const pointer = `/chance/inputs/${name}`;
    if (low > expected || expected > high) {
      const message = `Of "${name}" low, expected and high are ${low}, ${expected} and ${high}. Write them in order.`;
      return [{ code: "out-of-order", message, pointer }];
    }
    if (high <= 1 || !SHARES.test(name)) return [];
    return [{ code: "more-than-all", message: `"${name}" is a share of 1: write 0.02 for 2 %.`, pointer }];
  });
}

function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/**
 * What cannot be true of a plan that fits the schema: ids or serials given twice, two drives in one bay, a bay that
 * the box does not have, a drive in two groups or not in the plan, a data set on no volume, a day or a time zone that
 * there is not, hours too short to begin anything, sizes that cannot be summed exactly, chances out of order.
 *
 * @example referenceProblems(planWithTwoDrivesInBayOne)
 * // [{ code: "bay-taken", message: …, pointer: "/drives/1/place/bay" }]
 */
export function referenceProblems(plan: Plan): Problem[] {
  return [
    ...duplicateIds(plan.drives.map((drive, i) => ({ id: drive.id, pointer: `/drives/${i}`, what: "a drive" }))),
    ...duplicateIds(plan.pools.map((pool, p) => ({ id: pool.id, pointer: `/pools/${p}`, what: "a pool" }))),
    ...duplicateIds(
      plan.pools.flatMap((pool, p) =>
        pool.groups.map((group, g) => ({ id: group.id, pointer: `/pools/${p}/groups/${g}`, what: "a group" })),
      ),
    ),
    ...duplicateIds(
      plan.pools.flatMap((pool, p) =>
        pool.volumes.map((volume, v) => ({ id: volume.id, pointer: `/pools/${p}/volumes/${v}`, what: "a volume" })),
      ),
    ),
    ...duplicateIds(plan.steps.map((step, i) => ({ id: step.id, pointer: `/steps/${i}`, what: "a step" }))),
    ...duplicateIds(
      (plan.dataSets ?? []).map((set, i) => ({ id: set.id, pointer: `/dataSets/${i}`, what: "a data set" })),
    ),
    ...duplicateIds(
      (plan.backups ?? []).map((backup, i) => ({ id: backup.id, pointer: `/backups/${i}`, what: "a backup" })),
    ),
    ...placeProblems(plan),
    ...memberProblems(plan),
    ...dataSetProblems(plan),
    ...backupProblems(plan),
    ...sumProblems(plan),
    ...(plan.calendar ? calendarProblems(plan.calendar) : []),
    ...dayProblems(plan),
    ...recordProblems(plan),
    ...chanceProblems(plan.chance?.inputs),
  ];
}
