/**
 * What a list holds, grouped by a key, in the order in which keys and members come.
 *
 * @example groupedBy([1, 2, 3], (n) => n % 2).get(1) // [1, 3]
 */
export function groupedBy<T, K>(list: readonly T[], keyOf: (each: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const each of list) {
    const key = keyOf(each);
    const group = groups.get(key);
    if (group) group.push(each);
    else groups.set(key, [each]);
  }
  return groups;
}
