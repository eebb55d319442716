import { dataOfPool } from "../box/figures";
import type { Bytes } from "../bytes/bytes";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Plan, PlanCalendar } from "../document/plan";
import type { Finding } from "../findings/finding";
import type { Walk } from "../walk/moment";
import { exposedHours } from "../walk/planSummary";
import { walkPlan } from "../walk/walkPlan";
import { type Boxes, boxesOf } from "./boxes";
import { spentByYear, withinBudget } from "./budget";
import { type FrontSoFar, frontSteps } from "./front";
import type { Aim, Instance } from "./instance";
import { type Care, type LaidAct, laidOut } from "./layOut";
import { isProvable } from "./provable";
import { type Label, wayOf } from "./label";
import { cheapestWay } from "./search";
import type { SoFar } from "./soFar";

/** A way, put into the plan on trial and walked: what is said of it is what the plan would say. */
export interface Way {
  acts: LaidAct[];
  /** What is spent, in cents: for drives, and for running those that are more. */
  cents: number;
  /** Puts it into the plan. */
  command: Extract<Command, { kind: "insert-sequence" }>;
  plan: Plan;
  walk: Walk;
  /** For each act, what the groups hold together once it is done, in bytes. */
  data: Bytes[];
  /** The same before the first. */
  dataNow: Bytes;
  /** Expected hours for which the loss of any drive would lose data. */
  exposedHours: number;
  /** What stands against it; empty where it can be carried out. */
  blocks: Finding[];
  /** The first month in which it holds too little after all; null where it lasts. */
  shortIn: number | null;
}

/** The best way that was found, and how good it is. */
export interface BestWay {
  way: Way | null;
  /** No way costs less, in cents; Infinity where there is none. */
  least: number;
  /** Whether nothing is better: no way is cheaper, or leaves data less long exposed, or takes fewer acts. */
  proved: boolean;
  /** The month for which nothing that can be bought suffices; null where there is a way. */
  breaksIn: number | null;
  /** Where a limit of money a year is what breaks it: what a year at most would be enough, in cents; null otherwise. */
  enoughPerYear: number | null;
}

/** In which setting a way is laid out. */
export interface WaySetting extends Care {
  /** The whole document; the instance begins after its steps. */
  document: Plan;
  /** For a plan that has none. */
  calendar: PlanCalendar;
}

/** What is asked of the best way besides that the box suffices. */
export interface Asked {
  aim: Aim;
  /** In cents; null where it does not matter. */
  perYear: number | null;
  /** null where it does not matter. */
  mostActs: number | null;
}

/** The month in which a walked way holds too little, by what its moments hold. */
function shortIn(instance: Instance, acts: readonly LaidAct[], data: readonly Bytes[], start: Bytes): number | null {
  const { months, needs } = instance;
  let held = start;
  let next = 0;
  for (let month = 0; month < months; month += 1) {
    for (; next < acts.length && (acts[next]?.month ?? months) <= month; next += 1) held = data[next] ?? held;
    if ((needs[month] as number) > held) return month;
  }
  return null;
}

/** Lays a way out, puts it into the plan on trial and walks it; null where it cannot be put in. */
export function walkedWay(instance: Instance, label: Label, setting: WaySetting): Way | null {
  const { document, family, day, calendar } = setting;
  const laid = laidOut(instance, wayOf(label), setting);
  if (!laid) return null;
  const command: Way["command"] = {
    kind: "insert-sequence",
    name: "The best way to grow",
    steps: laid.steps,
    drives: laid.buys,
    ...(laid.steps.some(({ notBefore }) => notBefore !== undefined) ? { calendar } : {}),
  };
  const result = applyCommand(document, command);
  if (!result.ok) return null;
  const walk = walkPlan(result.plan, family, undefined, day);
  const first = document.steps.length;
  const dataAt = (at: number): Bytes => {
    const then = walk.moments[at]?.state.plan;
    const pool = then?.pools.find(({ id }) => id === instance.pool.id);
    return then && pool ? dataOfPool(then, pool, instance.rules) : 0;
  };
  const data = laid.ends.map((end) => dataAt(first + end));
  const own = walk.moments.slice(first + 1);
  const blocks = own.flatMap(({ walked }) =>
    walked && !walked.done ? walked.findings.filter(({ severity }) => severity === "block") : [],
  );
  return {
    acts: laid.acts,
    cents: label.cents,
    command,
    plan: result.plan,
    walk,
    data,
    dataNow: dataAt(first),
    exposedHours: exposedHours({ ...walk, moments: own }, 0),
    blocks: blocks.slice(0, 5),
    shortIn: shortIn(instance, laid.acts, data, dataAt(first)),
  };
}

/** Whether a way can be carried out and lasts. */
export const lasts = (way: Way): boolean => way.blocks.length === 0 && way.shortIn === null;

/** How many boxes are looked through step by step, where a way that is best if made at once does not hold. */
const MOST_STEPWISE = 60_000;

/** Of a front, the way that is asked for: fewest hours or acts, or the cheapest with so few acts. */
function chosenOf({ ways, complete, boxes }: FrontSoFar, { aim, mostActs, perYear }: Asked, months: number): SoFar {
  const few = mostActs === null ? ways : ways.filter(({ acts }) => acts <= mostActs);
  const fits = (way: Label) => perYear === null || spentByYear(way, months).every((cents) => cents <= perYear);
  const ordered = aim === "money" ? few : [...few].reverse();
  const best = ordered.find(fits) ?? null;
  return { best, least: complete && best === (ordered[0] ?? null) ? (best?.cents ?? Infinity) : 0, boxes };
}

/** The way of a front that is asked for. */
function* ofFront(instance: Instance, asked: Asked, boxes: Boxes): Generator<SoFar, SoFar> {
  const steps = frontSteps(instance, asked.aim === "hours" ? "hours" : "acts", boxes);
  for (;;) {
    const { done, value } = steps.next();
    const chosen = chosenOf(value, asked, instance.months);
    if (done) return chosen;
    yield chosen;
  }
}

/**
 * Searches for what is asked for. A front has no ways that buy ahead: where a year's money leaves out all of it, or the
 * first of it, what is found is not proved.
 */
export function* searching(
  instance: Instance,
  asked: Asked,
  boxes: Boxes = boxesOf(instance),
): Generator<SoFar, SoFar> {
  const { aim, perYear, mostActs } = asked;
  const within = () => withinBudget(instance, perYear ?? Infinity, boxes, undefined, mostActs ?? Infinity);
  if (aim === "money" && perYear !== null) return yield* within();
  if (aim === "money" && mostActs === null) return yield* cheapestWay(instance, boxes);
  const chosen = yield* ofFront(instance, asked, boxes);
  if (chosen.best || perYear === null) return chosen;
  const ahead = yield* within();
  return { ...ahead, least: ahead.best ? 0 : Infinity };
}

/** How long there is a way at all: the first month for which nothing suffices. */
function* breakingMonth(instance: Instance, asked: Asked): Generator<SoFar, number> {
  let [low, high] = [0, instance.months - 1];
  while (low < high) {
    const months = Math.ceil((low + high) / 2);
    const shorter = { ...instance, months, needs: instance.needs.slice(0, months) };
    const { best } = yield* searching(shorter, asked);
    if (best) low = months;
    else high = months - 1;
  }
  return low;
}

/** That there is no way: which month breaks it, and what a year would be enough where money is what lacks. */
function* noWay(instance: Instance, asked: Asked): Generator<SoFar, BestWay> {
  const breaksIn = yield* breakingMonth(instance, asked);
  const free = asked.perYear === null ? null : (yield* searching(instance, { ...asked, perYear: null })).best;
  const enoughPerYear = free && Math.max(...spentByYear(free, instance.months));
  return { way: null, least: Infinity, proved: false, breaksIn, enoughPerYear };
}

/**
 * The best way to grow, as steps of the plan that were walked. Where a hybrid does not hold on its way what it would if
 * it were made at once, since its bands stay as they were cut, ways are looked through step by step.
 *
 * @yields how far it is; the caller may stop and take `best`
 * @example last(bestWaySteps(instanceOf(plan, wish, day), asked, setting)).way?.cents
 */
export function* bestWaySteps(instance: Instance, asked: Asked, setting: WaySetting): Generator<SoFar, BestWay> {
  const at = yield* searching(instance, asked);
  if (!at.best) return yield* noWay(instance, asked);
  const way = walkedWay(instance, at.best, setting);
  if (way && lasts(way))
    return {
      way,
      least: at.least,
      proved: at.least >= at.best.cents && isProvable(instance, asked.aim),
      breaksIn: null,
      enoughPerYear: null,
    };
  const { best, least } = yield* stepByStep(instance, asked, at.least);
  const real = best ? walkedWay(instance, best, setting) : null;
  if (!real || !lasts(real))
    return { way: way ?? real, least, proved: false, breaksIn: (way ?? real)?.shortIn ?? null, enoughPerYear: null };
  const proved = real.cents <= least && asked.aim === "money" && isProvable(instance);
  return { way: real, least, proved, breaksIn: null, enoughPerYear: null };
}

/** Looks through the ways step by step, for as long as that is worth it. */
function* stepByStep(instance: Instance, asked: Asked, leastAtOnce: number): Generator<SoFar, SoFar> {
  const steps = searching(instance, asked, boxesOf(instance, "step-by-step"));
  for (;;) {
    const { done, value } = steps.next();
    const soFar = { ...value, least: Math.max(value.least, leastAtOnce) };
    const isBest = asked.aim === "money" && value.best !== null && value.best.cents <= leastAtOnce;
    if (done || value.boxes > MOST_STEPWISE || isBest) return soFar;
    yield soFar;
  }
}

/**
 * The same, but for no longer than the caller waits: what was found by then, with what no way costs less than.
 *
 * @param isOver asked now and then
 */
export function bestWayWithin(instance: Instance, asked: Asked, setting: WaySetting, isOver: () => boolean): BestWay {
  const steps = bestWaySteps(instance, asked, setting);
  let last: SoFar | null = null;
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (value.best) last = value;
    if (!isOver()) continue;
    const way = last?.best ? walkedWay(instance, last.best, setting) : null;
    return { way, least: last?.least ?? 0, proved: false, breaksIn: way?.shortIn ?? null, enoughPerYear: null };
  }
}
