/** A copy that was found whole no longer ago than this, in days, counts as current. */
export const CURRENT_DAYS = 35;
