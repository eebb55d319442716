const AND = new Intl.ListFormat("en");
const OR = new Intl.ListFormat("en", { type: "disjunction" });

/**
 * Things in a sentence, with "and" before the last.
 *
 * @example listOf(["a", "b", "c"]) // "a, b, and c"
 */
export const listOf = (things: Iterable<string>): string => AND.format(things);

/** The same with "or". `eitherOf(["a", "b"])` is "a or b". */
export const eitherOf = (things: Iterable<string>): string => OR.format(things);
