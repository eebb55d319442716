import { MOST_PROGRESS } from "../../document/limits";
import type { CommandModule } from "../commandModule";
import { stepWords } from "../recordWords";
import { need, refuse } from "../refusal";

/** How far the box said that a step was. Readings stand in the order of their times. */
export const takeProgress: CommandModule<"take-progress"> = {
  apply: (plan, { step, at, share }) => {
    const running = need(
      plan.underWay?.find((each) => each.step === step),
      "What is under way",
    );
    if (!(share >= 0 && share <= 1)) refuse("How far it is lies between 0 % and 100 %.");
    if (Date.parse(at) < Date.parse(running.start)) refuse("That is before the step was begun. Correct the time.");
    const readings = [...(running.readings ?? []).filter((each) => each.at !== at), { at, share }];
    readings.sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
    running.readings = readings.slice(-MOST_PROGRESS);
  },
  describe: ({ step, share }, plan) => `noted ${Math.round(share * 1000) / 10} % of ${stepWords(plan, step)}`,
};
