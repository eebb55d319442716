import { usableOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { atMost, claimed } from "../box/arrays";
import { changed } from "../box/state";
import type { Drive, Group, Plan, Pool } from "../document/plan";
import type { Finding } from "../findings/finding";
import { formatBytes, formatExactBytes } from "../bytes/formatBytes";
import { claimingFor } from "../layouts/claims";
import { layoutOf } from "../layouts/registry";
import { largerThanParity } from "./besideParity";
import { costOfNewSpace } from "./newSpace";
import { partUsedFindings } from "./partUsedFindings";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";
import { ownValue } from "../records/ownValue";

/** What holds a claim back: in an array over whole drives the smallest that stands in it, spares included. */
function whyNothing(plan: Plan, pool: Pool, group: Group, { family }: StepSetting): string {
  if (layoutOf(group.layout).liesEndToEnd)
    return "It brings nothing: the parts of this layout lie end to end on one drive, and none can grow where it is.";
  if (!layoutOf(group.layout).countsSmallest)
    return "It brings nothing yet: the larger part of a drive can be used once more drives are as large.";
  const smallest = (drives: readonly Drive[]) =>
    drives.reduce((least, each) => (each.bytes < least.bytes ? each : least));
  const standing = drivesOf(plan, [...group.drives, ...pool.spares, ...(group.spares ?? [])]);
  const least = smallest(standing);
  const size = formatBytes(least.bytes, family);
  return group.drives.includes(least.id)
    ? `It brings nothing yet: in this layout every drive counts as large as the smallest, and that has ${size}.`
    : `It brings nothing yet: the hot spare of ${size} stands in the array too and holds it back. Remove it from ` +
        "the spares first.";
}

/** Between what the pool lies, where a rewrite before the claim leaves it open. */
function openSizes(plan: Plan, then: Group, { rules, family }: StepSetting): Finding[] {
  const least = usableOfGroup(plan, then, rules);
  const most = usableOfGroup(plan, atMost(then), rules);
  if (most <= least) return [];
  return [
    against(
      "note",
      "claim-after-rewrite",
      "The rewrite before has used up some of the space before the data. How much was measured only on small " +
        `drives, so the group then holds ${formatExactBytes(least)} to ${formatExactBytes(most)}; ` +
        `${formatBytes(least, family)} is what you can count on.`,
    ),
  ];
}

/**
 * The space of larger replacements taken into the group, drive by drive or for the whole group as the rules have it.
 */
export const claimSpace: StepModule<"claim-space"> = {
  kind: "claim-space",
  name: "Use the new space of larger drives",
  boxWork: () => "first-fill",
  tells: ({ group, drive }, names) => [
    drive === undefined
      ? `Tell the box to use the full size of all drives of ${names.poolOfGroup(group)}.`
      : `Tell the box to use the full size of ${names.drive(drive)}.`,
  ],
  paced: true,
  handles: () => [],
  label: () => claimSpace.name,
  whileDegraded: "block",
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      pool.groups.map((group) => ({
        label: claimSpace.name,
        steps:
          claimingFor(layoutOf(group.layout), rules) === "per-drive" && group.reach
            ? Object.keys(group.reach).map((drive) => ({ kind: "claim-space" as const, group: group.id, drive }))
            : [{ kind: "claim-space" as const, group: group.id }],
      })),
  },
  check: ({ plan }, step, setting) => {
    const { rules } = setting;
    const group = groupOf(plan, step.group);
    if (!group) return [against("block", "no-such-group", "The group is not there at this moment.")];
    const claiming = claimingFor(layoutOf(group.layout), rules);
    if (claiming === "by-itself")
      return [
        against(
          "note",
          "claims-by-itself",
          "Your box takes the space into use by itself; this step has nothing to do.",
        ),
      ];
    if (claiming === "per-drive" && step.drive === undefined)
      return [
        against(
          "block",
          "claim-per-drive",
          "Your box takes the new space of one drive into use at a time. Say of which.",
        ),
      ];
    if (step.drive !== undefined && !group.drives.includes(step.drive))
      return [against("block", "not-a-member", "That drive is not in the group at this moment.", [step.drive])];
    const pool = poolOfGroup(plan, step.group);
    if (!pool) return [];
    const members = drivesOf(plan, group.drives);
    const tooLarge = largerThanParity(plan, group, members, members, setting);
    if (tooLarge.length > 0) return tooLarge;
    const then = claimed(plan, pool, group, rules, step.drive);
    if (then === group && !group.reach)
      return [against("note", "nothing-to-claim", "There is no new space to use at this moment.")];
    const gain = usableOfGroup(plan, then, rules) - usableOfGroup(plan, group, rules);
    const coming = members.filter(
      ({ id }) => ownValue(group.reach, id) !== undefined && ownValue(then.reach, id) === undefined,
    );
    const inPart = partUsedFindings(plan, group, members, coming, setting);
    if (gain > 0) return [...openSizes(plan, then, setting), ...inPart];
    return [against("note", "claims-nothing", whyNothing(plan, pool, group, setting)), ...inPart];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const [pool, group] = [poolOfGroup(state.plan, step.group), groupOf(state.plan, step.group)];
      const target = groupOf(plan, step.group);
      if (!pool || !group || !target) return;
      const whole = claimingFor(layoutOf(group.layout), rules) === "whole-group";
      const then = claimed(state.plan, pool, group, rules, whole ? undefined : step.drive);
      if (then.reach) target.reach = then.reach;
      else delete target.reach;
      if (then.kept) target.kept = then.kept;
    }),
  cost: ({ plan }, after, step, { rules }) =>
    noCost({ online: "slower", undoable: false, ...costOfNewSpace(plan, after.plan, step.group, rules) }),
  say: ({ plan }, step) => ({
    does:
      `${poolOfGroup(plan, step.group)?.name ?? "The pool"} uses the new space of its larger ` +
      `drives${step.drive === undefined ? "" : ", one drive of them"}.`,
    why: "Until then the group uses of each new drive only what it used of the old one.",
  }),
};
