import { type Asked, type BestWay, bestWayWithin, lasts, type Way, type WaySetting } from "@/core/bestWay/bestWay";
import { boxesOf } from "@/core/bestWay/boxes";
import { demandOf } from "@/core/bestWay/demand";
import { HABITS, type Habit, habitOf } from "@/core/bestWay/habits";
import type { Instance } from "@/core/bestWay/instance";
import { boxAfter, type GrowthWish, instanceOf, pricesOf, USUAL_FALL } from "@/core/bestWay/wish";
import { monthsAfter } from "@/core/bestWay/months";
import { AWAKE } from "@/core/calendar/planCalendar";
import { dataSetsIn } from "@/core/data/stored";
import type { LayoutId, Plan, PlanCalendar, Pool } from "@/core/document/plan";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import { CAREFUL } from "@/core/sequences/parts";
import { jsonAnswer, type RequestAnswer } from "../prediction/answerRequest";
import { planAsked, refused } from "../prediction/requestBody";
import validateBestWay from "./generated/validateBestWay.cjs";

/** A wish as it is sent: what is left out follows from the plan. */
interface Sent {
  pool?: string;
  months: number;
  demand?: number[];
  headroom?: number;
  tolerance?: number;
  layouts?: LayoutId[];
  bays?: number;
  prices?: { bytes: number; cents: number; from?: number }[];
  fallPerYear?: number;
  aim?: GrowthWish["aim"];
  centsPerYear?: number;
  mostActs?: number;
  retireAfterYears?: number;
  centsPerDriveYear?: number;
  equalPairs?: boolean;
}

/** How long a request is searched for, in milliseconds: the rest of ten seconds is for laying out and walking. */
const MOST_TIME = 5000;

/** The calendar of a plan that gets dates by this: steps begin on their day. */
const calendarFrom = (day: string): PlanCalendar => ({
  id: `growth-${day}`,
  start: day,
  timeZone: "UTC",
  hands: [...AWAKE],
  excluded: [],
  deliveryDays: 0,
});

/** What a plan lacks that a wish leaves to it: where, and what to say; null where it lacks nothing. */
function lackOf(sent: Sent, plan: Plan, pool: Pool | undefined): { pointer: string; message: string } | null {
  if (sent.pool !== undefined && !pool) return { pointer: "/wish/pool", message: "No pool of the plan has this id." };
  if (!sent.layouts && !pool?.groups.length)
    return {
      pointer: "/wish/layouts",
      message: "Say which layouts may be used: the plan has no pool that tells.",
    };
  if (!sent.demand && (!pool || dataSetsIn(plan, pool.id).length === 0))
    return {
      pointer: "/wish/demand",
      message: "Say what is stored in each month: the plan has no data sets that tell.",
    };
  return null;
}

const demandIn = ({ demand, months }: Sent, plan: Plan, pool: string): number[] =>
  demand
    ? Array.from({ length: months }, (_, month) => demand[Math.min(month, demand.length - 1)] ?? 0)
    : demandOf(plan, pool, months);

/** What a wish is where nothing else is said. */
const USUAL = {
  tolerance: 1,
  fallPerYear: USUAL_FALL,
  aim: "money",
  retireAfterYears: null,
  centsPerDriveYear: 0,
  equalPairs: false,
} as const;

function wishOf(sent: Sent, plan: Plan, pool: Pool | undefined): GrowthWish {
  const { pool: _named, demand: _given, mostActs: _acts, ...own } = sent;
  return {
    ...USUAL,
    layouts: [...new Set(pool?.groups.map(({ layout }) => layout) ?? [])],
    bays: plan.box.bays,
    headroom: pool?.volumes.at(-1)?.headroomShare ?? DEFAULT_HEADROOM,
    prices: pricesOf(plan, pool?.id ?? null),
    ...own,
    pool: pool?.id ?? null,
    demand: demandIn(sent, plan, pool?.id ?? ""),
  };
}

/** The acts as they are told: one for each drive that is bought, or that goes. */
const actsOf = ({ acts }: Way) =>
  acts.flatMap(({ month, kind, bought, gone, group }) =>
    bought.length === 0
      ? [{ month, kind, group, ...(gone[0] === undefined ? {} : { replaces: gone[0] }), cents: 0 }]
      : bought.map(({ drive, bytes, cents }, i) => ({
          month,
          kind,
          group,
          bytes,
          drive,
          cents,
          ...(gone[i] === undefined ? {} : { replaces: gone[i] }),
        })),
  );

function habitsIn(instance: Instance): Record<Habit, number | null> {
  const boxes = boxesOf(instance);
  const entries = HABITS.map((habit) => [habit, habitOf(instance, habit, boxes)?.cents ?? null] as const);
  return Object.fromEntries(entries) as Record<Habit, number | null>;
}

const answered = (instance: Instance, { way, least, proved }: BestWay & { way: Way }): RequestAnswer =>
  jsonAnswer(200, {
    proved,
    cents: way.cents,
    lowerBoundCents: Math.min(way.cents, Math.ceil(least)),
    exposedHours: way.exposedHours,
    acts: actsOf(way),
    plan: way.plan,
    habits: habitsIn(instance),
  });

const noWay = (month: number, today: string, asked: Asked, { enoughPerYear }: BestWay): RequestAnswer =>
  jsonAnswer(422, {
    message:
      `There is no way that lasts longer than month ${month}: from ${monthsAfter(today, month)} on nothing that can ` +
      "be bought holds what is stored" +
      (asked.perYear === null ? "" : " for the money of a year") +
      ". Allow more bays or money, larger sizes or another layout, or store less.",
    month,
    ...(enoughPerYear === null ? {} : { enoughCentsPerYear: enoughPerYear }),
  });

/**
 * Answers a request to `/api/best-way`: 200 with the best way to grow that was found, 400 for what is no such request
 * or no plan, 422 for a plan that contradicts itself, or where there is no way, with the month that breaks it.
 *
 * @param text the request's body
 * @param today as YYYY-MM-DD
 * @example answerBestWay('{"plan": …, "wish": { "months": 60 }}', "2026-11-27").status // 200
 */
export function answerBestWay(text: string, today: string): RequestAnswer {
  const read = planAsked<{ wish: Sent }>(text, validateBestWay);
  return read.ok ? answerFor(read.plan, read.asked.wish, today) : read.answer;
}

function answerFor(document: Plan, sent: Sent, today: string): RequestAnswer {
  const day = document.calendar?.start ?? today;
  const plan = boxAfter(document, day);
  const pool = plan.pools.find(({ id }) => id === (sent.pool ?? plan.pools[0]?.id));
  const lack = lackOf(sent, plan, pool);
  if (lack) return refused("The wish leaves out what the plan does not tell.", [lack]);
  const wish = wishOf(sent, plan, pool);
  const instance = instanceOf(plan, wish, day);
  const asked: Asked = { aim: wish.aim, perYear: sent.centsPerYear ?? null, mostActs: sent.mostActs ?? null };
  const setting: WaySetting = { document, family: "TB", day, variants: CAREFUL, calendar: calendarFrom(day) };
  const until = performance.now() + MOST_TIME;
  const found = bestWayWithin(instance, asked, setting, () => performance.now() > until);
  const { way, breaksIn } = found;
  if (way && lasts(way)) return answered(instance, { ...found, way });
  if (way === null || way.blocks.length === 0) return noWay(breaksIn ?? 0, day, asked, found);
  const findings = way.blocks.map(({ code, message }) => ({ code, message, pointer: "" }));
  return jsonAnswer(422, { message: way.blocks[0]?.message ?? "", month: breaksIn ?? 0, findings });
}
