import type { Drive, Plan, Step } from "../document/plan";
import { USUAL_DELIVERY_DAYS } from "../rescue/drafts";
import { keepBackup } from "../simulator/doings/elsewhere";
import { bring } from "../simulator/hands";
import { isDegraded } from "../simulator/isDegraded";
import { WAYS } from "../simulator/pace";
import type { Said } from "../simulator/practice";
import { moduleOf } from "../steps/registry";
import { adapted } from "./adapted";
import { type Advice, adviceFor, type Errand, lostOf } from "./errands";
import { COPY_MADE_FIRST } from "./losses";
import { afterSaid, followedBy, withBays, withFilled } from "./planOfPractice";
import { responsesTo } from "./responses";
import type { Answer } from "./script";
import { again, schedule, type Stage, strike, takeLosses, type Trouble } from "./stage";

/** What of the things that a box says its owner has to do something about. */
function troubleOf({ what, drive = "", step = "", why = "" }: Said): Trouble | null {
  if (what === "thrown-out") return { kind: "gone", drive, state: "failed" };
  if (what === "not-there") return { kind: "gone", drive, state: "missing" };
  if (what === "refused" || what === "stopped") return { kind: what, step, why };
  if (what === "power-cut") return { kind: "power-cut" };
  return what === "gone" ? { kind: "fire" } : null;
}

/** Takes up what the box has said since: the plan follows it, and troubles are noted. */
function hear(stage: Stage): void {
  const { practice } = stage;
  for (; stage.heard < practice.said.length; stage.heard += 1) {
    const said = practice.said[stage.heard] as Said;
    stage.plan = afterSaid(stage.plan, said, practice);
    noteDone(stage, said);
    const trouble = troubleOf(said);
    // What is done on advice and refused comes to nothing: advice is asked again where something is still gone.
    if (!trouble || (trouble.kind === "refused" && !isOfPlan(stage, said))) continue;
    // What the box would not do anyway is nobody's mishap.
    if (!stage.isStruck && "step" in trouble) stage.passedOver.push(trouble.step);
    // Whoever does what is advised is not asked again about each step that follows from it.
    else if ("step" in trouble && stage.answers.at(-1) === "advised" && stage.troubles.length === 0)
      responsesTo(stage, trouble, "advised");
    else stage.troubles.push(trouble);
  }
}

/** Whether what is said is about a step of the plan. */
const isOfPlan = ({ play }: Stage, { step }: Said): boolean =>
  play.plan.steps.some(({ id }) => id === step || again(id) === step);

/** Notes what stands in whose place, by what was done on advice or by a spare, and what was forgotten. */
function noteDone(stage: Stage, said: Said): void {
  const step = said.step === undefined ? undefined : stage.practice.steps.get(said.step);
  const isSwap = step && "drive" in step && "by" in step && step.drive !== undefined && step.drive !== step.by;
  if (said.what === "ended" && isSwap && !isOfPlan(stage, said)) stage.inPlace.set(step.drive, step.by);
  if (said.what === "forgotten" && said.step !== undefined) stage.passedOver.push(said.step);
}

/** The next answer, where the script has one. */
const nextAnswer = ({ play: { script }, answers }: Stage): Answer | undefined =>
  script.answers[answers.length] ?? script.otherwise;

/**
 * Answers what has gone wrong: the owner does this about it from here.
 *
 * @example answer(stage, "advised"); playTo(stage, Infinity)
 */
export function answer(stage: Stage, given: Answer): void {
  const { troubles, practice } = stage;
  stage.answers.push(given);
  // What is under way then is a part of the way out, unless it comes to nothing.
  stage.wayOut ??= {
    from: boxNow(stage),
    steps: practice.running.flatMap(({ step, held }) => (held ? [] : [step])),
  };
  stage.troubles = [];
  if (given === "wait") {
    const until = practice.box.hours + (practice.left() ?? 24);
    stage.putOff = { until, troubles };
    return;
  }
  for (const trouble of troubles) responsesTo(stage, trouble, given);
}

/**
 * The box as a plan document to which advice can be given. While a pool is stopped, what was to be filled is not there
 * yet, and what was pulled for it is out.
 */
function boxNow({ plan, practice }: Stage): Plan {
  if (practice.down.size === 0) return plan;
  const bays = practice.box.drives.map(({ bay }) => bay ?? "").join();
  return followedBy(plan, `bays ${bays}`, () => withBays(plan, practice));
}

/**
 * What is advised at a box as it is now: just what is done by an owner who follows it.
 *
 * @example adviceNow(stage).rescues[0]?.first // "Nothing is lost; one drive has failed."
 */
export const adviceNow = (stage: Stage): Advice => adviceFor(withFilled(boxNow(stage), stage.practice), stage.play);

/** The owner asks what to do now, and has that before everything else. */
function takeAdvice(stage: Stage): void {
  stage.needsAdvice = false;
  stage.plan = boxNow(stage);
  if (lostOf(stage.plan).some) takeLosses(stage);
  // Whatever befalls a box, nobody goes round in circles for ever.
  if (stage.advisedTimes >= MOST_ADVICE) return;
  stage.advisedTimes += 1;
  stage.errands = adviceNow(stage).errands.map((errand, i) =>
    "does" in errand ? { does: { ...errand.does, id: `advice-${stage.advisedTimes}-${i}` } } : errand,
  );
}

const MOST_ADVICE = 8;

/** The owner brings a drive. */
function bringDrive(stage: Stage, drive: Drive): void {
  bring(stage.practice, drive);
  stage.plan = followedBy(stage.plan, `brings ${drive.id}`, () =>
    stage.plan.drives.some(({ id }) => id === drive.id)
      ? stage.plan
      : { ...stage.plan, drives: [...stage.plan.drives, { ...drive, place: { shelf: true } }] },
  );
}

function doErrand(stage: Stage, errand: Errand): void {
  const { box } = stage.practice;
  if ("brings" in errand) bringDrive(stage, errand.brings);
  else if ("does" in errand) beginStep(stage, errand.does);
  else if ("waits" in errand) stage.waitsUntil = box.hours + errand.waits;
  else
    keepBackup(box, {
      pool: errand.copied,
      to: COPY_MADE_FIRST,
      hours: box.hours - errand.hours,
      place: "here",
      rate: WAYS.box,
    });
}

/** The turn of a step has come: what was to strike so many hours after it has its hour now. */
function turn(stage: Stage, step: Step): void {
  const now = stage.practice.box.hours;
  if (stage.turns.has(step.id)) return;
  stage.turns.set(step.id, now);
  for (const { step: id, hours, mishap } of stage.later)
    if (id === step.id) schedule(stage, { at: now + hours, mishap });
  for (const { step: id, hours, mark } of stage.marks)
    if (id === step.id) schedule(stage, { at: now + hours, mishap: null, mark });
  stage.marks = stage.marks.filter((each) => each.step !== step.id);
  stage.later = stage.later.filter((each) => each.step !== step.id);
}

/** Begins what comes next; says whether there was something. */
function beginNext(stage: Stage): boolean {
  if (stage.needsAdvice) {
    takeAdvice(stage);
    return true;
  }
  const errand = stage.errands.shift();
  if (errand) {
    doErrand(stage, errand);
    return true;
  }
  const [step, ...rest] = stage.ahead;
  if (!step) return false;
  if (!stage.turned) {
    stage.turned = true;
    turn(stage, step);
    return true;
  }
  const isAdvised = stage.answers.at(-1) !== "go-on" && stage.answers.length > 0;
  // What was lost before the plan begins is its business.
  if (isAdvised && lostOf(stage.plan).all && !lostOf(stage.first).all) {
    stage.ahead = [];
    stage.passedOver.push(...[step, ...rest].map(({ id }) => id));
    return true;
  }
  stage.ahead = rest;
  stage.turned = false;
  const own = isAdvised ? adapted(stage, step) : { does: step, brings: [] };
  if (own === null) return true;
  if (own.brings.length > 0) {
    for (const drive of own.brings) bringDrive(stage, drive);
    const days = stage.play.plan.calendar?.deliveryDays ?? USUAL_DELIVERY_DAYS;
    stage.errands.push({ waits: 24 * days }, { does: own.does });
  } else beginStep(stage, own.does);
  return true;
}

/** Begins a step; what a pool has lost is taken down before it comes back from a backup. */
function beginStep(stage: Stage, step: Step): void {
  const restores = moduleOf(step).restoresLost || ("from" in step && step.from !== undefined);
  if (stage.answers.length > 0 && restores) takeLosses(stage);
  if (stage.practice.begin(step)) stage.wayOut?.steps.push(step);
}

/** Lets hours pass on the box; how long it lacks something is taken down. */
function pass(stage: Stage, hours: number): void {
  if (hours <= 0) return;
  if (isDegraded(stage.practice)) stage.degradedHours += hours;
  stage.practice.pass(hours);
}

/** Why playing stopped. */
export type Stop = "until" | "asks" | "over" | { mark: number };

/** What is due now strikes; a mark stops. */
function due(stage: Stage): { mark: number } | "struck" | null {
  const [next] = stage.coming;
  if (!next || next.at > stage.practice.box.hours + 1e-9) return null;
  stage.coming.shift();
  if (next.mishap) strike(stage, next.mishap);
  return next.mark === undefined ? "struck" : { mark: next.mark };
}

/** Answers what has gone wrong by the script; says whether it could. */
function answerTroubles(stage: Stage): boolean {
  const { putOff, practice } = stage;
  if (putOff && putOff.until <= practice.box.hours + 1e-9) {
    stage.troubles.push(...putOff.troubles);
    stage.putOff = null;
  }
  while (stage.troubles.length > 0) {
    const given = nextAnswer(stage);
    if (given === undefined) return false;
    answer(stage, given);
  }
  return true;
}

/** Whether the box does nothing, and its owner waits for nothing. */
const isIdle = ({ practice, waitsUntil, putOff }: Stage): boolean =>
  practice.left() === null && waitsUntil <= practice.box.hours + 1e-9 && !putOff;

/** The hour at which the first thing happens that is known of now. */
function nextEnd({ practice, coming, putOff, waitsUntil }: Stage): number {
  const now = practice.box.hours;
  const left = practice.piece();
  const ends = [coming[0]?.at, putOff?.until, waitsUntil, left === null ? undefined : now + left];
  return Math.min(...ends.flatMap((at) => (at !== undefined && at > now ? [at] : [])));
}

/**
 * Plays a rehearsal on: steps are begun one after the other, what is to strike strikes, and the owner does what the
 * script says.
 *
 * @param until an hour since its beginning
 * @returns why it stopped: the hour has come; something has gone wrong and the script does not say what the owner does;
 *   it is over; or a mark has been reached
 * @example playTo(stage, 40)
 */
export function playTo(stage: Stage, until: number): Stop {
  const { practice } = stage;
  for (;;) {
    hear(stage);
    if (stage.isOver) return "over";
    if (!answerTroubles(stage)) return "asks";
    const is = due(stage);
    if (is === "struck" || stage.isOver) continue;
    if (is) return is;
    if (isIdle(stage)) {
      if (beginNext(stage)) continue;
      if (stage.coming.length === 0) {
        takeLosses(stage);
        stage.isOver = true;
        return "over";
      }
    }
    const now = practice.box.hours;
    if (now >= until) return "until";
    pass(stage, Math.min(until, nextEnd(stage)) - now);
  }
}
