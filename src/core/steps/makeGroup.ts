import { drivesOf } from "../box/find";
import { type BoxState, changed, takeIn } from "../box/state";
import type { GroupOptions, LayoutId, Plan } from "../document/plan";
import type { Finding } from "../findings/finding";
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

export const costOfGroup = (step: NewGroup): StepCost => noCost({ erased: [...step.drives], undoable: true });
