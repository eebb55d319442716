import { inText } from "../layouts/inText";
import { poolOf } from "../box/find";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { drivesInWords, missingPool } from "./checks";
import { checkNewGroup, costOfGroup, fillWords, withGroup } from "./makeGroup";
import { BY_HAND } from "./stepMenu";
import { against, type StepModule } from "./stepModule";

/**
 * A further group for a pool. It is made in minutes, and the space is there at once; the pool is then lost when any
 * group is.
 */
export const addGroup: StepModule<"add-group"> = {
  kind: "add-group",
  name: "Add a group to the pool",
  boxWork: () => "first-fill",
  tells: ({ pool, layout, drives }, names) => [
    `Add another ${names.layout(layout)} group to ${names.pool(pool)}, of ${names.drives(drives)}.`,
  ],
  paced: true,
  handles: (step) => step.drives,
  label: (step, names) => `Another group: ${layoutOf(step.layout).shortName} of ${names.list(step.drives)}`,
  whileDegraded: "block",
  menu: BY_HAND,
  check: (state, step, setting) => {
    const pool = poolOf(state.plan, step.pool);
    const other = pool?.groups.find((group) => group.layout !== step.layout);
    return [
      ...missingPool(state.plan, step.pool),
      ...checkNewGroup(state, step, setting),
      ...(pool && other
        ? [
            against(
              "warn",
              "mixed-layouts",
              `The groups of ${pool.name} would have different layouts (${inText(layoutOf(other.layout))} and ` +
                `${inText(layoutOf(step.layout))}). Check that your box takes this.`,
            ),
          ]
        : []),
      ...(pool && pool.groups.length > 0
        ? [against("note", "stands-with-all", "From then on the pool is lost when any one of its groups is.")]
        : []),
    ];
  },
  apply: (state, step) => withGroup(state, step),
  cost: (_before, after, step, setting) => ({ ...costOfGroup(after, step, setting), undoable: false }),
  say: ({ plan }, step, setting) => ({
    does:
      `${capital(drivesInWords(plan, step.drives, setting))} join ${poolOf(plan, step.pool)?.name ?? "the pool"} ` +
      `as another ${inText(layoutOf(step.layout))} group.${fillWords(step, setting)}`,
    why: "It gives the pool more space at once, without a rewrite.",
  }),
};
