import { moduleOf } from "@/core/steps/registry";
import { besidesExposure, exposedWords } from "@/core/walk/exposedWords";
import { inText } from "@/core/layouts/inText";
import { inSentence, withArticle } from "@/core/words/inSentence";
import { moneyWords } from "@/core/words/money";
import { conditionOf } from "@/core/box/condition";
import { conditionWords } from "@/core/failures/conditionWords";
import { drivesOf } from "@/core/box/find";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { formatBytes } from "@/core/bytes/formatBytes";
import { HANDS, handsIdOf } from "@/core/calendar/planCalendar";
import { CURRENT_DAYS } from "@/core/data/currentDays";
import { coverage, THREATS, type Coverage, type Threat } from "@/core/data/coverage";
import { outcomeWords } from "@/core/data/coverageWords";
import { fullWords, reachesWords, growthWords, WORTH_WORDS } from "@/core/data/dataWords";
import type { Ranged } from "@/core/chance/figures";
import type { PlanChances } from "@/core/chance/planChances";
import type { Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { nameOfDriveFirst, shortSize } from "@/core/drives/nameOfDrive";
import type { Severity } from "@/core/findings/finding";
import { layoutOf } from "@/core/layouts/registry";
import { ruleSetOf } from "@/core/rules/ruleSets";
import type { Demand } from "@/core/schedule/demand";
import type { Schedule } from "@/core/schedule/schedulePlan";
import { onlineWords } from "@/core/steps/swapping";
import { dayOfMomentIn, dayWords, momentWords, plainDayWords } from "@/core/time/dateWords";
import { addHours, NO_HOURS, type Hours } from "@/core/time/hours";
import { hoursWords } from "@/core/time/hoursWords";
import { costsOf } from "@/core/walk/costs";
import { erasedDrives } from "@/core/walk/erasedDrives";
import type { Walk, WalkedMoment } from "@/core/walk/moment";
import { dayOf, planSummary } from "@/core/walk/planSummary";
import { capital } from "@/core/words/capital";
import { chanceLines } from "./chanceLines";
import { counted, plural } from "@/core/words/counted";

/** The box at one end of the plan, in words. */
export interface BoxReport {
  pools: { name: string; layouts: string; drives: string; survives: string; volumes: string[] }[];
  usable: string;
}

export interface StepReport {
  number: number;
  /** A date and time, or a day counted from the beginning. */
  when: string;
  does: string;
  why: string;
  /** Empty for a step that is not carried out. */
  takes: string;
  notes: { severity: Severity; text: string }[];
  state: "done" | "passed-over" | "blocked";
  after: string;
}

/** All steps of a kind: how many, how long they take in all, and of how many something is to be known. */
export interface KindReport {
  what: string;
  steps: number;
  takes: string;
  notes: number;
}

/** So many steps are read one by one. */
const MOST_READ = 60;

/** The steps by their kinds, in the order in which those come first. */
function briefOf({ moments }: Walk): KindReport[] {
  const kinds = new Map<string, { steps: number; hours: Hours; notes: number }>();
  for (const { walked } of moments) {
    if (!walked || walked.step.disabled) continue;
    const { name } = moduleOf(walked.step);
    const { steps, hours, notes } = kinds.get(name) ?? { steps: 0, hours: NO_HOURS, notes: 0 };
    const isToKnow = walked.exposure.length > 0 || walked.findings.some(({ severity }) => severity !== "note");
    kinds.set(name, {
      steps: steps + 1,
      hours: addHours(hours, walked.done ? walked.cost.hours : NO_HOURS),
      notes: notes + (isToKnow ? 1 : 0),
    });
  }
  return [...kinds].map(([what, { steps, hours, notes }]) => ({ what, steps, takes: hoursWords(hours), notes }));
}

/**
 * A plan as a document to hold. Everything in it is text; what is printed and what is written as Markdown are the same.
 */
export interface PlanReport {
  name: string;
  box: string;
  summary: string[];
  before: BoxReport;
  after: BoxReport;
  steps: StepReport[];
  /** The steps by their kinds, where there are too many to be read one by one: then the list stands behind all else. */
  inBrief: KindReport[];
  erased: string[];
  shopping: { what: string; price: string; order: string }[];
  total: string | null;
  freed: string[];
  data: {
    name: string;
    size: string;
    growth: string;
    worth: string;
    outcomes: Record<Threat, { before: string; after: string }>;
  }[];
  backups: string[];
  full: string[];
  /** How likely something is lost; empty where that is not known yet. */
  chances: string[];
  assumptions: string[];
}

function boxReport({ state: { plan }, tolerance, capacities }: WalkedMoment, { family }: Walk): BoxReport {
  const rules = rulesOfBox(plan);
  return {
    usable: formatBytes(capacities.pool, family),
    pools: plan.pools.map((pool, i) => ({
      name: pool.name || pool.id,
      layouts: pool.groups.map((group) => inText(layoutOf(group.layout))).join(" + "),
      drives: drivesOf(
        plan,
        pool.groups.flatMap((group) => group.drives),
      )
        .map((drive) => `${shortSize(drive, family)}${bayOf(drive) === null ? "" : ` (bay ${bayOf(drive)})`}`)
        .join(", "),
      survives: conditionWords(conditionOf(plan, pool, rules), tolerance[i] ?? 0),
      volumes: pool.volumes.map(
        (volume) =>
          `${volume.name}: ` +
          `${formatBytes(volume.bytes, family)}${volume.fileSystem === "none" ? "" : `, ${volume.fileSystem}`}`,
      ),
    })),
  };
}

function stepReport(moment: WalkedMoment, i: number, made: Walk, schedule: Schedule | null): StepReport | null {
  const { walked, capacities } = moment;
  const { family } = made;
  const rules = rulesOfBox(made.moments[i]?.state.plan ?? made.plan);
  if (!walked) return null;
  const scheduled = schedule?.steps[i];
  const zone = schedule?.calendar.timeZone ?? "UTC";
  return {
    number: i + 1,
    when:
      scheduled && schedule
        ? `${momentWords(scheduled.start, zone)} to ${momentWords(scheduled.end, zone)}`
        : `day ${dayOf(walked.from)}`,
    does: walked.does,
    why: walked.why,
    takes: walked.done ? hoursWords(walked.cost.hours) : "",
    notes: [
      ...walked.exposure.map((each) => ({
        severity: "warn" as const,
        text: `${capital(exposedWords(each, walked.cost.hours.expected))}.`,
      })),
      ...(walked.cost.offline.expected > 0 && walked.done
        ? [{ severity: "warn" as const, text: `${capital(onlineWords(walked.cost, rules))}.` }]
        : []),
      ...besidesExposure(walked)
        .filter((finding) => finding.severity !== "note")
        .map((finding) => ({ severity: finding.severity, text: finding.message })),
    ],
    state: walked.done ? "done" : walked.step.disabled ? "passed-over" : "blocked",
    after: walked.done
      ? `${formatBytes(capacities.pool, family)} in the pool, ${formatBytes(capacities.fileSystem, family)} for ` +
        "your files"
      : "",
  };
}

function dataReport(made: Walk): Pick<PlanReport, "data" | "backups"> {
  const { plan, family, day, moments } = made;
  const last = moments.at(-1)?.state.plan ?? plan;
  const [before, after] = [coverage(plan, day), coverage(last, day)];
  const of = (list: Coverage[], id: string, threat: Threat, where: Plan) => {
    const found = list.find((each) => each.dataSet === id);
    return found ? outcomeWords(found.outcomes[threat], where) : "not stored any more";
  };
  return {
    data: (plan.dataSets ?? []).map((set) => ({
      name: set.name,
      size: formatBytes(set.bytes, family),
      growth: growthWords(set, family),
      worth: WORTH_WORDS[set.worth],
      outcomes: Object.fromEntries(
        THREATS.map((threat) => [
          threat,
          { before: of(before, set.id, threat, plan), after: of(after, set.id, threat, last) },
        ]),
      ) as Record<Threat, { before: string; after: string }>,
    })),
    backups: (plan.backups ?? []).map(
      (backup) =>
        `${backup.name}: ${backup.place === "here" ? "in the same place" : "elsewhere"}, a backup every ` +
        `${plural(backup.everyDays, "day", `${backup.everyDays} days`)}${backup.keepsVersions ? ", older states kept" : ""}, ` +
        (backup.lastVerified ? `last tested on ${plainDayWords(backup.lastVerified)}` : "never tested"),
    ),
  };
}

const fullLines = (demands: readonly Demand[], start: string): string[] =>
  demands.map(
    ({ volume, fullWithPlan, fullWithoutPlan }) =>
      `${volume.name} ` +
      `${reachesWords(volume, fullWithPlan, start)}${fullWithPlan === fullWithoutPlan ? "" : ` with this plan, without it ${fullWords(fullWithoutPlan, start)}`}.`,
  );

function assumptionsOf({ plan }: Walk, schedule: Schedule | null): string[] {
  const hands = schedule ? handsIdOf(schedule.calendar.hands) : null;
  return [
    "Hours are estimates from the usual rates of such drives: first what is likely, in brackets from when all " +
      "goes well to when the box is busy.",
    "The box behaves as " +
      `${withArticle(inSentence(ruleSetOf(plan.box.rules).name))}${plan.box.rules.overrides && Object.keys(plan.box.rules.overrides).length > 0 ? ", with rules of its own" : ""}. ` +
      "Compare with what it really offers before you begin.",
    ...(schedule
      ? [
          `Dates are by what is likely, in ${schedule.calendar.timeZone}; hands at the box: ` +
            `${hands ? HANDS[hands].name : "your own hours"}; delivery in ${schedule.calendar.deliveryDays} days.`,
        ]
      : []),
    ...(plan.dataSets
      ? [
          `Only backups tested within ${CURRENT_DAYS} days before the plan count. Data is taken to grow as it ` +
            "is said to.",
        ]
      : []),
    "A layout is no backup: it helps against failed drives, not against mistakes, theft or fire.",
  ];
}

/**
 * A plan as a document: the box before and after, the steps with their dates, what is erased, what is to be bought, and
 * what all of it rests on.
 *
 * @param schedule where the plan has a calendar
 * @param start the plan's first day, as YYYY-MM-DD
 * @param chances at its first and last moment, and along it; null where they are not known yet
 */
export function planReport(
  made: Walk,
  schedule: Schedule | null,
  demands: readonly Demand[],
  start: string,
  chances: Ranged<PlanChances> | null = null,
): PlanReport {
  const { plan, moments, family } = made;
  const [first, last] = [moments[0], moments.at(-1)];
  if (!first || !last) throw new RangeError("A walk has at least the moment before the first step.");
  const costs = costsOf(made);
  const orderOf = (id: string) => schedule?.orders.find((order) => order.drives.includes(id));
  return {
    name: plan.name,
    box: `${plan.box.name || "The box"}: ${counted(plan.box.bays, "bay")}, ${ruleSetOf(plan.box.rules).name}`,
    summary: [
      ...planSummary(made, dayOfMomentIn(schedule)),
      ...(schedule
        ? [
            `From ${dayWords(schedule.begin, schedule.calendar.timeZone)} to ` +
              `${dayWords(schedule.end, schedule.calendar.timeZone)}.`,
          ]
        : []),
    ],
    before: boxReport(first, made),
    after: boxReport(last, made),
    steps: moments.slice(1).flatMap((moment, i) => stepReport(moment, i, made, schedule) ?? []),
    inBrief: moments.length - 1 > MOST_READ ? briefOf(made) : [],
    erased: erasedDrives(made).map(({ name }) => name),
    shopping: costs.purchases.map(({ drive, price, isExample }) => {
      const order = orderOf(drive.id);
      return {
        what:
          `${shortSize(drive, family)} ` +
          `${drive.medium === "ssd" ? "flash drive" : "hard disk"}${drive.model ? `, ${drive.model}` : ""}`,
        price:
          price === null ? "no price" : `${moneyWords(price, plan.currency)}${isExample ? " (example price)" : ""}`,
        order: order ? `by ${plainDayWords(order.orderOn)}` : "",
      };
    }),
    total:
      costs.purchases.length > 0
        ? `${moneyWords(costs.total, plan.currency)}${costs.unpriced > 0 ? `, and ${costs.unpriced} without a price` : ""}`
        : null,
    freed: costs.freed.map((drive) => nameOfDriveFirst(drive, family)),
    ...dataReport(made),
    full: fullLines(demands, start),
    chances: chances ? chanceLines(chances, plan) : [],
    assumptions: assumptionsOf(made, schedule),
  };
}
