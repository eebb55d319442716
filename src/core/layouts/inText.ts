import type { GroupOptions } from "../document/plan";
import { capital } from "../words/capital";
import { shortNameOf } from "./chunks";
import type { Layout } from "./layout";

/**
 * A layout as it is called within a sentence: by the trade's number where it has one, else by its name in full, since
 * short names ("Separate", "2 copies") are no words of a sentence.
 *
 * @example inText(layoutOf("raid5")) // "RAID 5"
 * @example inText(layoutOf("single")) // "separate drives"
 * @example inText(layoutOf("hybrid-1")) // "hybrid (one drive safe)"
 */
export function inText(layout: Layout, options: GroupOptions = {}): string {
  if (layout.shortName.startsWith("RAID")) return layout.shortName;
  const width = shortNameOf(layout, options).slice(layout.shortName.length).trim();
  return layout.name.replace(/, (.*)$/, " ($1)") + (width && ` ${width}`);
}

/**
 * A layout by the trade's number and by its name, for menus and forms: neither alone is known to everybody.
 *
 * @example fullName(layoutOf("raid5")) // "RAID 5 (single parity)"
 * @example fullName(layoutOf("hybrid-1")) // "Hybrid, one drive safe"
 */
export const fullName = ({ name, shortName }: Layout): string =>
  shortName.startsWith("RAID") ? `${shortName} (${name})` : capital(name);

/**
 * What stands beside a layout's short name where that alone does not say what it is; null where it does.
 *
 * @example besideShort(layoutOf("raid5")) // "single parity"
 * @example besideShort(layoutOf("hybrid-1")) // "one drive safe"
 */
export function besideShort({ name, shortName }: Layout): string | null {
  const [first = "", rest] = name.split(", ");
  // "2 copies" and "two copies of every chunk" say the same.
  const bare = (words: string) => words.toLowerCase().replace(/^(one|two|three|\d) /, "");
  return rest ?? (bare(first).startsWith(bare(shortName)) ? null : first);
}
