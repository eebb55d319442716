import { occupied } from "../bands/occupied";
import { bandsOfGroup, usableOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { passHours } from "../box/passHours";
import { changed } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import { REBUILD_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { A_FEW_MINUTES, against, noCost, type StepModule } from "./stepModule";

/**
 * The space of larger replacements taken into the group, drive by drive or for the whole group as the rules have it.
 */
export const claimSpace: StepModule<"claim-space"> = {
  kind: "claim-space",
  name: "Claim the space of larger drives",
  handles: () => [],
  label: () => claimSpace.name,
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      pool.groups.map((group) => ({
        label: claimSpace.name,
        steps:
          rules.claiming === "per-drive" && group.reach
            ? Object.keys(group.reach).map((drive) => ({ kind: "claim-space" as const, group: group.id, drive }))
            : [{ kind: "claim-space" as const, group: group.id }],
      })),
  },
  check: ({ plan }, step, { rules, family }) => {
    const group = groupOf(plan, step.group);
    if (!group) return [against("block", "no-such-group", "The group is not there at this moment.")];
    if (rules.claiming === "by-itself")
      return [
        against(
          "note",
          "claims-by-itself",
          "By its rules your box claims the space by itself; this step has nothing to do.",
        ),
      ];
    if (rules.claiming === "per-drive" && step.drive === undefined)
      return [against("block", "claim-per-drive", "Your box claims the space of one drive at a time. Say of which.")];
    if (step.drive !== undefined && !group.drives.includes(step.drive))
      return [against("block", "not-a-member", "That drive is not in the group at this moment.", [step.drive])];
    const open =
      step.drive === undefined
        ? Object.keys(group.reach ?? {})
        : [step.drive].filter((id) => group.reach?.[id] !== undefined);
    if (open.length === 0) return [against("note", "nothing-to-claim", "There is nothing to claim at this moment.")];
    const then = {
      ...group,
      reach:
        step.drive === undefined
          ? undefined
          : Object.fromEntries(Object.entries(group.reach ?? {}).filter(([id]) => id !== step.drive)),
    };
    const { reach, ...rest } = then;
    const gain =
      usableOfGroup(plan, { ...rest, ...(reach ? { reach } : {}) }, rules) - usableOfGroup(plan, group, rules);
    return gain > 0
      ? []
      : [
          against(
            "note",
            "claims-nothing",
            `The claim brings nothing yet: in this layout every drive counts as large as the smallest, and that has ${formatBytes(Math.min(...drivesOf(plan, group.drives).map((drive) => drive.bytes)), family)}.`,
          ),
        ];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const group = groupOf(plan, step.group);
      if (!group?.reach) return;
      if (step.drive === undefined || rules.claiming === "whole-group") delete group.reach;
      else {
        delete group.reach[step.drive];
        if (Object.keys(group.reach).length === 0) delete group.reach;
      }
    }),
  cost: ({ plan }, after, step, { rules }) => {
    const [before, then] = [groupOf(plan, step.group), groupOf(after.plan, step.group)];
    if (!before || !then) return noCost({});
    const [was, is] = [occupied(bandsOfGroup(plan, before, rules)), occupied(bandsOfGroup(after.plan, then, rules))];
    const layout = layoutOf(then.layout);
    // Copies and parity are written into the new space; chunks get theirs when something is stored in it.
    const redundant = !layout.chunked && layout.nominalTolerance(then.options ?? {}) > 0;
    const more = drivesOf(after.plan, then.drives).map((drive) => ({
      drive,
      bytes: Math.max(0, (is.get(drive.id) ?? 0) - (was.get(drive.id) ?? 0)),
    }));
    return noCost({
      hours:
        redundant && more.some(({ bytes }) => bytes > 0)
          ? passHours(after.plan, new Map(more.map(({ drive, bytes }) => [drive.id, bytes])), REBUILD_SHARE)
          : A_FEW_MINUTES,
      work: redundant
        ? more
            .filter(({ bytes }) => bytes > 0)
            .map(({ drive, bytes }) => ({ drive: drive.id, reads: 0, writes: bytes }))
        : [],
      online: "slower",
      undoable: false,
    });
  },
  say: ({ plan }, step) => ({
    does: `${poolOfGroup(plan, step.group)?.name ?? "The pool"} takes in the space of its larger drives${step.drive === undefined ? "" : ", one drive of them"}.`,
    why: "Until then the group uses of each new drive only what it used of the old one.",
  }),
};
