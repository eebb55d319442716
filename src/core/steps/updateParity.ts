import { poolOf } from "../box/find";
import { layoutOf } from "../layouts/registry";
import { missingPool } from "./checks";
import { costOfReadingAll, wouldRecordTheLoss } from "./scheduled";
import { against, noCost, type StepModule } from "./stepModule";

/** Scheduled parity brought up to date: files are protected as of this moment. */
export const updateParity: StepModule<"update-parity"> = {
  kind: "update-parity",
  name: "Update the parity",
  boxWork: () => "parity-update",
  tells: ({ pool }, names) => [`Start an update of the parity of ${names.pool(pool)}.`],
  paced: true,
  handles: () => [],
  ifADriveFails: () => "Stop it at once: going on, it would record the loss.",
  label: () => updateParity.name,
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      rules.parityWrites === "by-schedule"
        ? [{ label: updateParity.name, steps: [{ kind: "update-parity", pool: pool.id }] }]
        : [],
  },
  check: ({ plan }, step, setting) => [
    ...missingPool(plan, step.pool),
    ...wouldRecordTheLoss(plan, poolOf(plan, step.pool), setting),
    ...(setting.rules.parityWrites === "by-schedule"
      ? []
      : [against("note", "written-at-once", "Your box writes parity at once; there is nothing to update.")]),
    ...(poolOf(plan, step.pool)?.groups.some((group) => !layoutOf(group.layout).dedicatedParity)
      ? [against("note", "no-parity-drives", "Only pools with parity drives have a parity to update.")]
      : []),
  ],
  apply: (state) => state,
  cost: ({ plan }, _after, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool || rules.parityWrites !== "by-schedule") return noCost({});
    return costOfReadingAll(plan, pool, rules);
  },
  say: ({ plan }, step) => ({
    does: `The parity of ${poolOf(plan, step.pool)?.name ?? "the pool"} is brought up to date.`,
    why:
      "Files are protected as of the last update. If a drive has failed, do not update the parity: it would " +
      "record the loss. Restore first.",
  }),
};
