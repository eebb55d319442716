import { driveOf } from "../box/find";
import type { UnitFamily } from "../bytes/formatBytes";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Plan, PlanCalendar } from "../document/plan";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { rulesOf } from "../rules/ruleSets";
import { swapWords } from "../steps/swapping";
import type { Hours } from "../time/hours";
import { costsOf, type Purchase } from "../walk/costs";
import { exposedFor } from "../walk/exposedFor";
import type { Walk, WalkedMoment, WalkedStep } from "../walk/moment";
import { placeAt } from "../walk/placeAt";
import { walkPlan } from "../walk/walkPlan";
import type { Made, Sequence, SequenceSetting, Wish } from "./sequence";

/** A sequence put into the plan on trial: what it does, needs, erases and takes. */
export interface Tried {
  does: string;
  /** In which order, and why, where there is a choice. */
  order: string | null;
  command: Extract<Command, { kind: "insert-sequence" }>;
  /** The moments before and after its steps. */
  before: WalkedMoment;
  after: WalkedMoment;
  moments: WalkedMoment[];
  purchases: Purchase[];
  /** By serial, bay and size; drives that are yet to be bought are left out. */
  erased: string[];
  /** Expected, and between what, in hours of work. */
  hours: { low: number; expected: number; high: number };
  /** Hours for which the loss of any drive loses data, where it does not otherwise. */
  bareHours: number;
  /** Expected hours for which the pool cannot be used, but for changes of drives. */
  offlineHours: number;
  /** How often the box is off, or the pool stopped, to change drives; in words, empty where it is not. */
  swapWords: string;
  /** What stands against it; the sequence cannot be carried out then. */
  blocks: Finding[];
  warnings: Finding[];
  notes: Finding[];
  /** How many steps that are planned for later could be carried out before, and cannot with it. */
  breaks: number;
}

export type TriedSequence = { ok: true; tried: Tried } | { ok: false; reason: string };

/** Where in the plan a sequence goes in: at a moment of its walk. */
export interface Place {
  document: Plan;
  walked: Walk;
  /** The index of the moment. */
  at: number;
  /** The day today, as YYYY-MM-DD. */
  today: string;
}

/** The setting of a sequence at a moment of a plan. */
export function settingAt({ document, walked, at, today }: Place): SequenceSetting {
  const plan = walked.moments[at]?.state.plan ?? document;
  return {
    plan,
    document,
    rules: rulesOf(plan.box.rules),
    family: walked.family,
    day: document.calendar?.start ?? today,
  };
}

const ofBlocks = (findings: readonly Finding[]) => findings.filter((finding) => finding.severity === "block");

/** The hours from the first step to the last; low and high go with the expected hours of each. */
function hoursOf(steps: readonly WalkedStep[]): Hours {
  const [from, to] = [Math.min(...steps.map((each) => each.from)), Math.max(...steps.map((each) => each.to))];
  const expected = to - from;
  // Steps that run together count once.
  const alone = steps.filter((each) => each.step.together !== true);
  const sum = (of: keyof Hours) => alone.reduce((total, each) => total + each.cost.hours[of], 0);
  const range = (of: keyof Hours) => (sum("expected") > 0 ? (expected * sum(of)) / sum("expected") : expected);
  return { low: range("low"), expected, high: range("high") };
}

/** The drives that some moments erase, named as they are before; those that are only bought for it do not count. */
function erasedIn(
  before: WalkedMoment,
  moments: readonly WalkedMoment[],
  made: Extract<Made, { ok: true }>,
  family: UnitFamily,
): string[] {
  const erased = new Map<string, string>();
  moments.forEach((moment, i) => {
    const earlier = (i === 0 ? before : moments[i - 1])?.state.plan;
    for (const id of moment.walked?.cost.erased ?? []) {
      const drive = earlier && driveOf(earlier, id);
      if (drive && !drive.toBuy && !made.buys.some((each) => each.id === id) && !erased.has(id))
        erased.set(id, nameOfDriveFirst(drive, family));
    }
  });
  return [...erased.values()];
}

/** How many steps that could be carried out before cannot be any more. */
function brokenBy(trial: Walk, walked: Walk): number {
  const could = new Set(walked.moments.flatMap(({ walked: each }) => (each?.done ? [each.step.id] : [])));
  return trial.moments.filter(({ walked: each }) => each && !each.done && could.has(each.step.id)).length;
}

/**
 * Works a sequence out, puts its steps into the plan on trial and walks the whole of it: what is said of it is what the
 * plan would say. A calendar is given to the plan where steps wait for a day and it has none.
 *
 * @param calendar one to give, as it is usual here
 * @returns what it does, or why it cannot be done, in the words of what stands against it
 */
export function trySequence(sequence: Sequence, wish: Wish, place: Place, calendar: PlanCalendar): TriedSequence {
  const made: Made = sequence.make(wish, settingAt(place));
  if (!made.ok) return made;
  const { document, walked, at } = place;
  const waits = made.steps.some((step) => step.notBefore !== undefined);
  const command: Tried["command"] = {
    kind: "insert-sequence",
    name: sequence.name,
    ...placeAt(walked, at),
    steps: made.steps,
    drives: made.buys,
    ...(waits ? { calendar } : {}),
  };
  const result = applyCommand(document, command);
  if (!result.ok) return { ok: false, reason: result.reason };
  const trial = walkPlan(result.plan, walked.family, walked, walked.day ?? place.today);
  const moments = trial.moments.slice(at + 1, at + 1 + made.steps.length);
  const [before, after] = [trial.moments[at], moments.at(-1)];
  if (!before || !after) return { ok: false, reason: "There is nothing to be done." };
  const steps = moments.flatMap(({ walked: each }) => each ?? []);
  const own = new Set(steps.map((each) => each.step.id));
  const lasting = (which: (each: WalkedStep) => boolean) =>
    steps.filter(which).reduce((sum, each) => sum + each.to - each.from, 0);
  return {
    ok: true,
    tried: {
      breaks: brokenBy(trial, walked),
      does: made.does,
      order: made.order ?? null,
      command,
      before,
      after,
      moments,
      purchases: costsOf(trial).purchases.filter((purchase) => own.has(purchase.step)),
      erased: erasedIn(before, moments, made, walked.family),
      hours: hoursOf(steps),
      bareHours: steps.reduce(
        (sum, each) => sum + exposedFor(each, ({ redundancy, usual }) => redundancy <= 0 && usual > 0),
        0,
      ),
      offlineHours: lasting((each) => each.cost.online === "offline" && each.done),
      swapWords: swapWords(
        steps.reduce((swaps, each) => swaps + each.cost.swaps, 0),
        rulesOf(before.state.plan.box.rules),
      ),
      // The first step that cannot be carried out says why; those after it stumble over that.
      blocks: ofBlocks(steps.find((each) => ofBlocks(each.findings).length > 0)?.findings ?? []),
      warnings: steps.flatMap((each) => each.findings.filter((finding) => finding.severity === "warn")),
      notes: steps.flatMap((each) => each.findings.filter((finding) => finding.severity === "note")),
    },
  };
}
