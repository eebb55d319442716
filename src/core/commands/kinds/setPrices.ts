import { MOST_PRICES } from "../../document/limits";
import type { CommandModule } from "../commandModule";
import { refuse } from "../refusal";

/** The prices that the plan reckons with; an empty list takes them away. */
export const setPrices: CommandModule<"set-prices"> = {
  apply: (plan, command) => {
    if (command.prices.length > MOST_PRICES) refuse(`A price list has at most ${MOST_PRICES} lines.`);
    if (command.prices.length === 0) delete plan.prices;
    else plan.prices = command.prices;
  },
  describe: () => "changed the prices",
};
