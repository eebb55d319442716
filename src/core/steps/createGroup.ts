import { inText } from "../layouts/inText";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { plural } from "../words/counted";
import { drivesInWords } from "./checks";
import { checkNewGroup, costOfGroup, fillWords, withGroup } from "./makeGroup";
import { BY_HAND } from "./stepMenu";
import { against, type StepModule } from "./stepModule";

/** A new pool of one group, on empty drives. Its space is there at once; what was on the drives is erased. */
export const createGroup: StepModule<"create-group"> = {
  kind: "create-group",
  name: "Create a pool",
  boxWork: () => "first-fill",
  tells: ({ name, layout, drives }, names) => [
    `Make a new pool ${name} with ${names.layout(layout)} of ${names.drives(drives)}.`,
  ],
  paced: true,
  handles: (step) => step.drives,
  label: (step, names) => `New pool ${step.name}: ${layoutOf(step.layout).shortName} of ${names.list(step.drives)}`,
  menu: BY_HAND,
  check: (state, step, setting) => [
    ...(state.plan.pools.some((pool) => pool.id === step.pool)
      ? [against("block", "pool-exists", "The pool is there already. Add a group to it instead.")]
      : []),
    ...checkNewGroup(state, step, setting),
  ],
  apply: (state, step) =>
    withGroup(state, step, (plan) =>
      plan.pools.push({ id: step.pool, name: step.name, groups: [], spares: [], volumes: [] }),
    ),
  cost: (_before, after, step, setting) => costOfGroup(after, step, setting),
  say: ({ plan }, step, setting) => ({
    does:
      `${capital(drivesInWords(plan, step.drives, setting))} ${plural(step.drives.length, "becomes", "become")} ` +
      `the new pool ${step.name} with ${inText(layoutOf(step.layout))}.${fillWords(step, setting)}`,
    why: "A pool is what volumes are carved from.",
  }),
};
