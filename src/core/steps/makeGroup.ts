import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf } from "../box/find";
import { type BoxState, changed, takeIn } from "../box/state";
import type { BoxRules, Group, GroupOptions, LayoutId, Plan } from "../document/plan";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { type FirstFill, firstFillOf } from "../speeds/firstFill";
import { largerThanParity } from "./besideParity";
import { joiningFindings, layoutFindings, missingDrives, notFree } from "./checks";
import { against, noCost, type StepCost, type StepSetting } from "./stepModule";

// What making a group of empty drives has in common, whether it is a pool's first or a further one.

interface NewGroup {
  pool: string;
  group: string;
  layout: LayoutId;
  drives: string[];
  options?: GroupOptions;
}

export function checkNewGroup({ plan, tested }: BoxState, step: NewGroup, setting: StepSetting): Finding[] {
  return [
    ...(plan.pools.some((pool) => pool.groups.some((group) => group.id === step.group))
      ? [
          against(
            "block",
            "group-exists",
            "The group is there already at this moment: another step makes it before. Remove one of the two.",
          ),
        ]
      : []),
    ...missingDrives(plan, step.drives),
    ...notFree(plan, step.drives, setting),
    ...layoutFindings(step, step.drives.length, setting),
    ...largerThanParity(plan, step, drivesOf(plan, step.drives), drivesOf(plan, step.drives), setting),
    ...joiningFindings(drivesOf(plan, step.drives), [], step, setting, tested),
  ];
}

/** For use inside `changed`: the drives in their bays, as a group of the pool. */
export function putGroup(plan: Plan, step: NewGroup): void {
  step.drives.forEach((id) => takeIn(plan, id));
  plan.pools
    .find((pool) => pool.id === step.pool)
    ?.groups.push({ id: step.group, layout: step.layout, drives: [...step.drives], options: { ...step.options } });
}

export const withGroup = (state: BoxState, step: NewGroup, before: (plan: Plan) => void = () => {}): BoxState =>
  changed(state, (plan) => {
    before(plan);
    putGroup(plan, step);
  });

/** What the first fill of a group takes that has just been made. */
export const fillOf = (plan: Plan, group: Group, rules: BoxRules): FirstFill | null =>
  firstFillOf(layoutOf(group.layout), bandsOfGroup(plan, group, rules), drivesOf(plan, group.drives), rules);

/** Minutes, and what its first fill takes where the box does one. */
export function costOfGroup(after: BoxState, step: NewGroup, { rules }: StepSetting): StepCost {
  const group = groupOf(after.plan, step.group);
  const fill = group ? fillOf(after.plan, group, rules) : null;
  const erased = { erased: [...step.drives], undoable: true };
  return fill ? noCost({ ...erased, ...fill, online: "slower", filling: step.group }) : noCost(erased);
}

/** What a first fill means for the data, after the sentence that says what is made; empty where there is none. */
export function fillWords({ layout, options = {} }: NewGroup, { rules }: StepSetting): string {
  const { chunked, nominalTolerance } = layoutOf(layout);
  return rules.firstFill === "at-once" && !chunked && nominalTolerance(options) > 0
    ? " Its first fill begins at once: until that has ended, a failed drive would lose data."
    : "";
}
