import type { CommandModule } from "../commandModule";

/** The currency that the plan's amounts are in. */
export const setCurrency: CommandModule<"set-currency"> = {
  apply: (plan, { currency }) => {
    if (currency === null) delete plan.currency;
    else plan.currency = currency;
  },
  describe: ({ currency }) => (currency === null ? "took the currency away" : `set the currency to ${currency}`),
};
