import { currentSteps, stepNow } from "../../carrying/stepNow";
import { MOST_UNDER_WAY } from "../../document/limits";
import { asItWas } from "../asItWas";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";
import { stepWords } from "../recordWords";
import { refuse } from "../refusal";

/** A step that is begun at the box. */
export const startStep: CommandModule<"start-step"> = {
  apply: (plan, { step, at, unit }) => {
    placeOfStep(plan, step);
    const underWay = plan.underWay ?? [];
    if (underWay.some((each) => each.step === step)) refuse("This step is under way already.");
    if (underWay.length >= MOST_UNDER_WAY) refuse(`At most ${MOST_UNDER_WAY} steps are under way at once.`);
    if (!currentSteps(asItWas(plan)).some(({ id }) => id === step))
      refuse("Another step comes before this one. Carry that out to its end first, or skip it in the plan.");
    const now = stepNow(asItWas(plan), step, unit ?? "TB");
    const block = now?.walked.findings.find(({ severity }) => severity === "block");
    if (block) refuse(block.message);
    plan.underWay = [...underWay, { step, start: at }];
  },
  describe: ({ step }, plan) => `began ${stepWords(plan, step)}`,
};
