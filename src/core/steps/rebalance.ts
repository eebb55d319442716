import { underParity } from "../bands/underParity";
import { bandsOfGroup } from "../box/figures";
import { groupOf, poolOfGroup } from "../box/find";
import { passHours } from "../box/passHours";
import { changed } from "../box/state";
import { RESHAPE_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { roomForChunks } from "./roomForChunks";
import { against, noCost, type StepModule } from "./stepModule";
import { workedThrough } from "./workedThrough";

/** What is stored in a chunk pool spread over all its drives again, so that new chunks find room in pairs. */
export const rebalance: StepModule<"rebalance"> = {
  kind: "rebalance",
  name: "Rebalance",
  boxWork: () => "rebalance",
  tells: ({ group }, names) => [`Start a rebalance of ${names.poolOfGroup(group)}.`],
  paced: true,
  handles: () => [],
  label: () => rebalance.name,
  whileDegraded: "block",
  ifADriveFails: () =>
    "Stop it, and bring the drive back first: with one missing, what is moved may be written in one copy only.",
  menu: {
    under: "pool",
    offers: (pool) =>
      pool.groups
        .filter((group) => layoutOf(group.layout).chunked)
        .map((group) => ({ label: rebalance.name, steps: [{ kind: "rebalance", group: group.id }] })),
  },
  check: ({ plan }, step, setting) => {
    const [group, pool] = [groupOf(plan, step.group), poolOfGroup(plan, step.group)];
    if (!group || !pool) return [against("block", "no-such-group", "The group is not there at this moment.")];
    if (!layoutOf(group.layout).chunked)
      return [
        against(
          "block",
          "no-chunks",
          `${layoutOf(group.layout).shortName} is laid out in stripes, not in chunks: there is nothing to rebalance.`,
        ),
      ];
    if (!group.filled) return [against("note", "balanced", "It is balanced already at this moment.")];
    return roomForChunks(plan, pool, step, { does: "Rebalancing", uses: [] }, setting);
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const group = groupOf(plan, step.group);
      if (group) delete group.filled;
    }),
  cost: ({ plan }, _after, step, { rules }) => {
    const group = groupOf(plan, step.group);
    const pool = poolOfGroup(plan, step.group);
    if (!group || !pool) return noCost({});
    const filled = workedThrough(plan, pool, group, rules);
    const parity = underParity(bandsOfGroup(plan, group, rules));
    return noCost({
      hours: passHours(plan, filled, RESHAPE_SHARE, rules, parity),
      work: group.drives.map((drive) => {
        const bytes = filled.get(drive) ?? 0;
        return { drive, reads: bytes, writes: bytes };
      }),
      online: "slower",
    });
  },
  say: ({ plan }, step) => ({
    does: `What is stored in ${poolOfGroup(plan, step.group)?.name ?? "the pool"} is spread over all its drives again.`,
    why: "Every chunk needs space on two or more drives; a new drive alone is of no use to a full pool.",
  }),
};
