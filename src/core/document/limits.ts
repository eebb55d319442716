/** How much a plan may hold, as its schema says. */
export { MOST_BACKUPS, MOST_BAYS, MOST_DATA_SETS, MOST_DRIVES, MOST_PRICES, MOST_STEPS } from "./generated/limits";
