/** Where the browser keeps the few preferences that are no part of a plan. */
export const THEME_KEY = "cortijo-theme";
export const UNIT_KEY = "cortijo-unit";
/** Whether Cortijo has been opened here before. */
export const VISITED_KEY = "cortijo-visited";
