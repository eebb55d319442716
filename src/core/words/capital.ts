/**
 * A text with a capital at its start, to begin a sentence with.
 *
 * @example capital("the 4 TB drive") // "The 4 TB drive"
 */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
