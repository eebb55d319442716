/**
 * Things in a sentence, with "and" before the last; by hand, because the first list that Intl writes costs a slow
 * phone a sixth of a second.
 *
 * @example listOf(["a", "b", "c"]) // "a, b, and c"
 */
export function listOf(things: Iterable<string>): string {
  const all = [...things];
  if (all.length < 3) return all.join(" and ");
  return `${all.slice(0, -1).join(", ")}, and ${all.at(-1)}`;
}
