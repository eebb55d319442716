const AND = new Intl.ListFormat("en");

/**
 * Things in a sentence, with "and" before the last.
 *
 * @example listOf(["a", "b", "c"]) // "a, b, and c"
 */
export const listOf = (things: Iterable<string>): string => AND.format(things);
