const RULES = new Intl.PluralRules("en");

/**
 * The form of a word that goes with a count.
 *
 * @param many where it is not the word with an s
 * @example plural(1, "is", "are") // "is"
 */
export function plural(count: number, one: string, many = `${one}s`): string {
  return RULES.select(count) === "one" ? one : many;
}

/**
 * A count with its word.
 *
 * @example counted(3, "drive") // "3 drives"
 */
export function counted(count: number, one: string, many?: string): string {
  return `${count} ${plural(count, one, many)}`;
}

/**
 * A few words for one thing, and a count for more.
 *
 * @param one in whole, with its article
 * @example oneOrMany(1, "a step", "steps") // "a step"
 * @example oneOrMany(3, "a step", "steps") // "3 steps"
 */
export function oneOrMany(count: number, one: string, many: string): string {
  return plural(count, one, `${count} ${many}`);
}
