import { workName } from "../../logbook/workWords";
import { inSentence } from "../../words/inSentence";
import type { CommandModule } from "../commandModule";

/** Whether the hours of a kind of work stay as the usual rates give them. */
export const setRatesOnly: CommandModule<"set-rates-only"> = {
  apply: (plan, { work, on }) => {
    const others = (plan.ratesOnly ?? []).filter((each) => each !== work);
    const next = on ? [...others, work] : others;
    if (next.length > 0) plan.ratesOnly = next;
    else delete plan.ratesOnly;
  },
  describe: ({ work, on }) =>
    on
      ? `let ${inSentence(workName(work))} be by the usual rates`
      : `let ${inSentence(workName(work))} be by your box's own times`,
};
