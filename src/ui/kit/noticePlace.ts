/** The id of the place in the bar that is free for a notice. */
export const NOTICE_PLACE = "notice-place";
