/** Where the browser keeps the few preferences that are no part of a plan. */
export const THEME_KEY = "cortijo-theme";
export const UNIT_KEY = "cortijo-unit";
