import type { Plan, Step } from "../document/plan";
import { befall, type Mishap } from "./mishaps";
import { Practice, type Said } from "./practice";
import type { Grain } from "./setUp";

/** What happens while a plan is tried, and what its owner does. */
export interface TryOut {
  /** On the box's clock, from the beginning. */
  hours: number;
  /** Mishaps, each at its hour. */
  mishaps?: readonly (Mishap & { at: number })[];
  /** Whether the steps are begun one after the other; otherwise none is. */
  begins?: boolean;
  /** Whether the next step is begun also once something has gone wrong. */
  goesOn?: boolean;
}

/**
 * Tries a plan on a simulated box: its steps one after the other, as soon as the one before has ended, and what befalls
 * the box meanwhile. A step that the box refuses holds up those after it, unless its owner goes on.
 *
 * @throws RangeError for a mishap to a drive that is not there
 * @example tryOut(plan, { blocks: 1024, seed: 1 }, { hours: 30 }).said // what the box said in these hours
 */
export function tryOut(plan: Plan, grain: Grain, { hours, mishaps = [], ...owner }: TryOut): Practice {
  const practice = Practice.of(plan, grain);
  const coming = [...mishaps].sort((a, b) => a.at - b.at);
  const steps = owner.begins === false ? [] : plan.steps.filter(({ disabled }) => !disabled);
  for (;;) {
    const now = practice.box.hours;
    while (coming[0] && coming[0].at <= now) befall(practice, coming.shift() as Mishap);
    if (now >= hours) return practice;
    beginNext(practice, steps, owner.goesOn ?? false);
    const until = Math.min(hours, coming[0]?.at ?? Infinity) - now;
    practice.pass(Math.min(until, practice.left() ?? Infinity));
  }
}

/** Begins the next step where nothing is under way; those that the box refuses are passed over by whoever goes on. */
function beginNext(practice: Practice, steps: Step[], goesOn: boolean): void {
  while (practice.left() === null && steps[0] && (goesOn || isWell(practice))) practice.begin(steps.shift() as Step);
}

/** What the box says when something has gone wrong. */
const WRONG: ReadonlySet<Said["what"]> = new Set(["refused", "stopped", "thrown-out", "not-there", "gone"]);

const isWell = ({ said }: Practice): boolean => !said.some(({ what }) => WRONG.has(what));
