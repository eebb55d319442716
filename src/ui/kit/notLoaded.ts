/** That what an act needs could not be loaded; the act can be tried again as it is. */
export const NOT_LOADED =
  "What is needed for this could not be loaded: Cortijo’s server cannot be reached, or has been updated. " +
  "Nothing was changed. Try it again, or load the page again.";
