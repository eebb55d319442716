import { nominalBytes } from "../bytes/nominalBytes";
import { emptyPlan } from "../document/emptyPlan";
import type { BoxRules, Drive, LayoutId, Plan, Pool, RuleSetId } from "../document/plan";
import { testDrive } from "./arbitraries";

/** A box with a pool p1 of one group g1 over drives d1 … dn in bays, and further drives x1 … on the shelf. */
export function boxWith(
  set: RuleSetId,
  layout: LayoutId,
  sizes: number[],
  shelf: number[] = [],
  more: Partial<Pool> = {},
  bays = 12,
): Plan {
  const bytes = (size: number) => (size < 1000 ? nominalBytes(size * 1000) : size);
  return {
    ...emptyPlan("x"),
    box: { name: "x", bays, rules: { set } },
    drives: [
      ...sizes.map((size, i) => testDrive(`d${i + 1}`, bytes(size), { place: { bay: i + 1 } })),
      ...shelf.map((size, i) => testDrive(`x${i + 1}`, bytes(size))),
    ],
    pools: [
      {
        id: "p1",
        name: "P",
        groups: [{ id: "g1", layout, drives: sizes.map((_, i) => `d${i + 1}`), options: {} }],
        spares: [],
        volumes: [],
        ...more,
      },
    ],
  };
}

/** The same box with some of its rules answered otherwise. */
export const withRules = (plan: Plan, overrides: Partial<BoxRules>): Plan => ({
  ...plan,
  box: { ...plan.box, rules: { ...plan.box.rules, overrides } },
});

/** The same box with something else known of one drive. */
export const withDrive = (plan: Plan, id: string, changes: Partial<Drive>): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (drive.id === id ? { ...drive, ...changes } : drive)),
});
