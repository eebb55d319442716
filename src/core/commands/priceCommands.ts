import { addCommands } from "./addedCommands";
import { setCurrency } from "./kinds/setCurrency";
import { setPrices } from "./kinds/setPrices";

// The first page says nothing of prices: whoever does imports this file.
addCommands({ "set-prices": setPrices, "set-currency": setCurrency });
