/** The id of the page's own plan where the browser keeps nothing. */
export const UNKEPT_PLAN = "unkept";
