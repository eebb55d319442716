import { changed } from "../box/state";
import { capital } from "../words/capital";
import { named } from "./checks";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepModule } from "./stepModule";

/** The drive is free again. */
export const removeSpare: StepModule<"remove-spare"> = {
  kind: "remove-spare",
  name: "Remove a hot spare",
  boxWork: () => null,
  tells: ({ drive }, names) => [`Tell the box that ${names.drive(drive)} is no hot spare any more.`],
  pullsLast: () => true,
  handles: () => [],
  label: () => removeSpare.name,
  menu: BY_HAND,
  check: ({ plan }, step, setting) => {
    const isSpare = plan.pools.some(
      (pool) => pool.spares.includes(step.drive) || pool.groups.some((group) => group.spares?.includes(step.drive)),
    );
    return isSpare
      ? []
      : [against("block", "no-spare", `${capital(named(plan, step.drive, setting))} is no hot spare at this moment.`)];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      for (const pool of plan.pools) {
        pool.spares = pool.spares.filter((drive) => drive !== step.drive);
        for (const group of pool.groups)
          if (group.spares) group.spares = group.spares.filter((drive) => drive !== step.drive);
      }
    }),
  cost: () => noCost({}),
  say: ({ plan }, step, setting) => ({
    does: `${capital(named(plan, step.drive, setting))} no longer stands by.`,
    why: "It is free for other use.",
  }),
};
