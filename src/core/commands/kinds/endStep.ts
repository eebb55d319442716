import { afterStep, afterStopping, type Ending } from "../../carrying/recording";
import type { Plan } from "../../document/plan";
import { asItWas } from "../asItWas";
import { become } from "../become";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";
import { stepWords } from "../recordWords";
import { refuse } from "../refusal";

/** When a step began: as it was recorded, or at its end where it takes no time. */
const startOf = ({ underWay }: Plan, step: string, end: string): string =>
  underWay?.find((each) => each.step === step)?.start ?? end;

function endingOf(plan: Plan, step: string, at: string, more: Omit<Ending, "start" | "end">): Ending {
  placeOfStep(plan, step);
  const start = startOf(plan, step, at);
  if (Date.parse(at) < Date.parse(start)) refuse("That is before the step was begun. Correct the time.");
  return { start, end: at, ...more };
}

/** A step that has been done: it is history, and the plan begins after it. */
export const endStep: CommandModule<"end-step"> = {
  apply: (plan, { step, at, shown, unit }) => {
    const ending = endingOf(plan, step, at, { outcome: "done", ...(shown ? { shown } : {}) });
    const next = afterStep(asItWas(plan), step, ending, unit ?? "TB");
    if (next.ok) become(plan, next.plan);
    else refuse(next.reason);
  },
  describe: ({ step }, plan) => `recorded the end of ${stepWords(plan, step)}`,
};

/** A step that was begun and did not come to its end. */
export const stopStep: CommandModule<"stop-step"> = {
  apply: (plan, { step, at, why, unit }) => {
    const ending = endingOf(plan, step, at, { outcome: "stopped", ...(why ? { why: why.slice(0, 200) } : {}) });
    const next = afterStopping(asItWas(plan), step, ending, unit ?? "TB");
    if (next) become(plan, next);
  },
  describe: ({ step }, plan) => `recorded that ${stepWords(plan, step)} has stopped`,
};
