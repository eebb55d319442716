import { rulesOfBox } from "../box/rulesOfBox";
import type { LayoutId, Plan, Pool } from "../document/plan";
import { layoutOf } from "../layouts/registry";

/** A way from the layouts of a pool to another takes so many changes of level at most. */
const MOST_CHANGES = 2;

/** The layouts of a pool's groups, each once. */
export const layoutsOfPool = (pool: Pick<Pool, "groups"> | undefined): LayoutId[] => [
  ...new Set((pool?.groups ?? []).map(({ layout }) => layout)),
];

/** The layouts that a box offers and that bear a failure: in them a first pool can begin. */
export const beginningsIn = (plan: Plan): LayoutId[] =>
  rulesOfBox(plan).layouts.filter((id) => {
    const { nominalTolerance, stripe, liesEndToEnd } = layoutOf(id);
    return nominalTolerance({}) > 0 && stripe({}).copies !== "all" && !liesEndToEnd;
  });

/**
 * The layouts that a pool can be brought to by changes of its level, its own with them: those that the box offers and
 * that bear a failure.
 *
 * @param to only those on a way to this one
 * @example levelsFor(plan, raid5Pool) // ["raid5", "raid6", …]
 */
export function levelsFor(plan: Plan, pool: Pick<Pool, "groups">, to?: LayoutId): LayoutId[] {
  const { layouts, levelChanges } = rulesOfBox(plan);
  const own = layoutsOfPool(pool);
  const isOffered = (id: LayoutId) => layouts.includes(id) && layoutOf(id).nominalTolerance({}) > 0;
  let ways: LayoutId[][] = own.map((id) => [id]);
  const found = new Set(own);
  for (let change = 0; change < (levelChanges === "none" ? 0 : MOST_CHANGES); change += 1) {
    ways = ways.flatMap((way) =>
      layoutOf(way.at(-1) as LayoutId)
        .becomes.map((each) => each.to as LayoutId)
        .filter((id) => isOffered(id) && !way.includes(id))
        .map((id) => [...way, id]),
    );
    for (const way of ways.filter((each) => to === undefined || each.at(-1) === to)) way.forEach((id) => found.add(id));
  }
  return [...found];
}
