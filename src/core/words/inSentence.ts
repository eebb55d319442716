/** Words that begin with a capital wherever they stand. */
const PROPER = /^([A-Z][A-Z0-9]|Linux\b|Btrfs\b)/;

/**
 * A name as it stands within a sentence: its first letter small, unless the word has a capital of its own.
 *
 * @example inSentence("Classic RAID box") // "classic RAID box"
 * @example inSentence("Linux software-RAID host") // "Linux software-RAID host"
 */
export const inSentence = (name: string): string =>
  PROPER.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

/**
 * A name with its indefinite article: "an" before a vowel's sound, which 8, 11, 18 and the eighties have too.
 *
 * @example withArticle("8 TB drive") // "an 8 TB drive"
 */
export const withArticle = (name: string): string => `${/^([aeio]|8|1[18](?!\d))/i.test(name) ? "an" : "a"} ${name}`;
