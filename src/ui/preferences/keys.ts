/** Where the browser keeps the few preferences that are no part of a plan. */
export const THEME_KEY = "cortijo-theme";
export const UNIT_KEY = "cortijo-unit";
/** How high the strip of time is, in pixels. */
export const STRIP_KEY = "cortijo-strip";
/** What has been typed in the quick start, until a plan is made of it. */
export const DRAFT_KEY = "cortijo-quick-start";
/** What has been asked once and is not asked again, each by a name after this. */
export const ASKED_KEY = "cortijo-asked-";
/** Whether Cortijo has been opened here before. */
export const VISITED_KEY = "cortijo-visited";
