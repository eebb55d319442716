import type { LayoutId, Plan } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { wrongCount } from "../layouts/problemsOfLayout";
import { type Asked, walkedWay, type WaySetting } from "./bestWay";
import type { Instance } from "./instance";
import { type Label, wayOf } from "./label";
import { beginningsIn, layoutsOfPool, levelsFor } from "./levels";
import { bestInTime, type FirstPurchase, firstPurchase, type Patience } from "./whatIf";
import { type GrowthWish, instanceOf } from "./wish";

/** How a pool comes to a layout. */
export type Reached = "stays" | "changes" | "begins" | "made-again";

/** The best way with one layout. */
export interface LayoutWay {
  layout: LayoutId;
  reached: Reached;
  /** In which month the level is changed; null where that does not pay, or is not done. */
  changesIn: number | null;
  /** null where there is no way. */
  cents: number | null;
  /** Hours for which the loss of any drive would lose data. */
  hours: number;
  first: FirstPurchase | null;
  proved: boolean;
}

/** The instance as if the pool's drives had just been made one group of another layout, filled from a backup. */
function madeAgain(instance: Instance, layout: LayoutId): Instance | null {
  const drives = instance.groups.flatMap((group) => [...group.drives]);
  if (wrongCount(layoutOf(layout), drives.length, instance.rules, {})) return null;
  const group = { id: "again", layout, drives: drives.map(({ drive }) => drive.id) };
  return { ...instance, groups: [{ group, drives }], layouts: [layout], equalPairs: false };
}

/** For how long a way exposes data: as its steps predict; where it begins from a backup, as the search promises. */
function hoursOf(instance: Instance, best: Label, reached: Reached, setting: WaySetting): number {
  const way = reached === "made-again" ? null : walkedWay(instance, best, setting);
  return way?.exposedHours ?? best.hours;
}

/** A layout, how the pool comes to it, and the instance that asks for it. */
interface Candidate {
  layout: LayoutId;
  reached: Reached;
  instance: Instance;
}

/** The layouts that there are for a pool. */
function candidatesFor(plan: Plan, wish: GrowthWish, day: string): Candidate[] {
  const pool = plan.pools.find(({ id }) => id === wish.pool);
  const own = layoutsOfPool(pool);
  const withLayouts = (layouts: readonly LayoutId[]) => instanceOf(plan, { ...wish, layouts }, day);
  const begins = beginningsIn(plan);
  const [first] = own;
  if (!pool || !first) return begins.map((layout) => ({ layout, reached: "begins", instance: withLayouts([layout]) }));
  const levels = levelsFor(plan, pool).filter((id) => !own.includes(id));
  const others = begins.filter((id) => !own.includes(id) && !levels.includes(id));
  return [
    { layout: first, reached: "stays", instance: withLayouts(own) },
    ...levels.map((layout): Candidate => ({
      layout,
      reached: "changes",
      instance: withLayouts(levelsFor(plan, pool, layout)),
    })),
    ...others.flatMap((layout): Candidate[] => {
      const instance = madeAgain(withLayouts(own), layout);
      return instance ? [{ layout, reached: "made-again", instance }] : [];
    }),
  ];
}

/**
 * What each layout costs over the years: the one that the pool has, those to which its level can be changed on the way,
 * and all others that the box offers, made again from a backup; of a first pool each in which it can begin.
 *
 * @param plan the box from which it grows, which the setting's document comes to
 * @yields what is known so far
 * @returns the cheapest first, those without a way last
 */
export function* byLayout(
  plan: Plan,
  wish: GrowthWish,
  asked: Asked,
  setting: WaySetting,
  patience: Patience,
): Generator<LayoutWay[], LayoutWay[]> {
  let ways: LayoutWay[] = [];
  for (const { layout, reached, instance } of candidatesFor(plan, wish, setting.day)) {
    const { best, proved } = bestInTime(instance, asked, patience);
    const change = best && wayOf(best).find(({ act }) => act.kind === "new-level" && act.to.id === layout);
    const way: LayoutWay = {
      layout,
      reached,
      changesIn: change?.month ?? null,
      cents: best?.cents ?? null,
      hours: best ? hoursOf(instance, best, reached, setting) : 0,
      first: best && firstPurchase(best),
      proved,
    };
    ways = [...ways, way].sort((a, b) => (a.cents ?? Infinity) - (b.cents ?? Infinity) || a.hours - b.hours);
    yield ways;
  }
  return ways;
}
