import { afterStep } from "../../carrying/recording";
import type { Plan } from "../../document/plan";
import { asItWas } from "../asItWas";
import { become } from "../become";
import type { CommandModule } from "../commandModule";

/**
 * The plan with steps recorded that the box shows to be done. When they ended is not known, only that it was before the
 * reading: their time does not count.
 */
function recorded(was: Plan, done: readonly string[], at: string): Plan {
  return done.reduce((plan, step) => {
    const start = plan.underWay?.find((each) => each.step === step)?.start ?? at;
    const next = afterStep(plan, step, { start, end: at, outcome: "done" }, "TB");
    if (!next.ok) return plan;
    const history = (next.plan.history ?? []).map((entry, i, all) =>
      i === all.length - 1 ? { ...entry, leftOut: true as const } : entry,
    );
    return { ...next.plan, history };
  }, was);
}

/** How the box was when it was read; with what was made out of it as the beginning of the plan. */
export const takeReading: CommandModule<"take-reading"> = {
  apply: (plan, { reading, as, done }) => {
    if (as && done && done.length > 0) become(plan, recorded(asItWas(plan), done, reading.at));
    plan.lastReading = reading;
    if (as) Object.assign(plan, as);
  },
  describe: ({ as }) => (as ? "set the plan to how the box is" : "read the box"),
};
