import type { Command } from "../document/command";
import { emptyPlan } from "../document/emptyPlan";
import type { LayoutId, NewDrive, Plan, RulesChoice } from "../document/plan";
import { applyCommand } from "./applyCommand";

/** What a plan can be begun with. */
export interface Beginning {
  name: string;
  bays: number;
  rules: RulesChoice;
  drives: readonly NewDrive[];
  /** Its pool, the drives by their place in `drives`; without groups they stand in their bays and no pool is made. */
  groups: readonly { layout: LayoutId; drives: readonly number[] }[];
}

/** The drives get these ids when they are added to an empty plan, so that a trial can name them beforehand. */
export const idOfDrive = (index: number): string => `d${index + 1}`;

/**
 * A plan of what somebody has: the box, the drives in its bays, and the pool that was chosen for them.
 *
 * @returns the plan, or why it cannot be
 * @example planFrom({ name: "Home", bays: 4, rules: { set: "classic-raid" }, drives, groups: [{ layout: "raid5", drives: [0, 1, 2] }] })
 */
export function planFrom({
  name,
  bays,
  rules,
  drives,
  groups,
}: Beginning): { ok: true; plan: Plan } | { ok: false; reason: string } {
  const seated: Command[] = [
    { kind: "add-drives", drives: [...drives] },
    { kind: "seat-drives", drives: drives.map((_, i) => idOfDrive(i)) },
  ];
  const commands: Command[] = [
    { kind: "change-box", rules },
    { kind: "change-box", bays },
    ...(drives.length > 0 ? seated : []),
    ...(groups.length > 0
      ? [
          {
            kind: "lay-out-pool" as const,
            pool: null,
            groups: groups.map((group) => ({ layout: group.layout, drives: group.drives.map(idOfDrive) })),
          },
        ]
      : []),
  ];
  let plan = emptyPlan(name);
  for (const command of commands) {
    const result = applyCommand(plan, command);
    if (!result.ok) return result;
    plan = result.plan;
  }
  return { ok: true, plan };
}
