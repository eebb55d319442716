const WORDS = ["never", "once", "twice", "three times", "four times", "five times", "six times"];

/**
 * How often something happens.
 *
 * @example times(3) // "three times"
 */
export const times = (count: number): string => WORDS[count] ?? `${count} times`;
