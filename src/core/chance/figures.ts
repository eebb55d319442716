import type { Spread } from "./inputs";

/** A tree of figures whose numbers have become ranges. */
export type Ranged<T> = T extends number
  ? Spread
  : T extends string | null
    ? T
    : T extends readonly (infer Each)[]
      ? Ranged<Each>[]
      : { [K in keyof T]: Ranged<T[K]> };

/**
 * All numbers of a tree, in the order of its keys.
 *
 * @example numbersIn({ year: { poolLost: 0.1, fileDamaged: 0.2 }, id: "p1" }) // [0.1, 0.2]
 */
export function numbersIn(tree: unknown): number[] {
  if (typeof tree === "number") return [tree];
  return typeof tree === "object" && tree !== null ? Object.values(tree).flatMap(numbersIn) : [];
}

/**
 * A tree with ranges in the place of its numbers.
 *
 * @param ranges as many as it has numbers, in their order
 */
export function rangedTree<T>(tree: T, ranges: readonly Spread[]): Ranged<T> {
  let next = 0;
  const put = (node: unknown): unknown => {
    if (typeof node === "number") {
      const range = ranges[next] ?? { low: node, expected: node, high: node };
      next += 1;
      return range;
    }
    if (Array.isArray(node)) return node.map(put);
    if (typeof node !== "object" || node === null) return node;
    return Object.fromEntries(Object.entries(node).map(([key, value]) => [key, put(value)]));
  };
  return put(tree) as Ranged<T>;
}
