/**
 * What a calendar's hours must last at least, in minutes: to begin what needs hands at the box takes so long. Where
 * hours are shorter nothing could ever be begun in them.
 */
export const LEAST_HANDS_MINUTES = 45;

/** How much a plan may hold, as its schema says. */
export {
  MOST_BACKUPS,
  MOST_BAYS,
  MOST_DATA_SETS,
  MOST_DRIVES,
  MOST_HISTORY,
  MOST_LOG,
  MOST_PRICES,
  MOST_PROGRESS,
  MOST_STEPS,
  MOST_UNDER_WAY,
} from "./generated/limits";

/** The most characters that history and log may have together as JSON, so that a plan file stays under 1 MiB. */
export const MOST_RECORD_CHARACTERS = 768 * 1024;
