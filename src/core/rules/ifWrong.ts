/** Where to mend it if the box does what is refused here for it. */
export const IF_WRONG = "If that is wrong, correct “What can your box do?”.";
