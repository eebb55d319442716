import { inText } from "../layouts/inText";
import { drivesOf } from "../box/find";
import type { Group, LayoutId, Plan, Pool } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { growSteps } from "../steps/growSteps";
import { counted, oneOrMany, plural } from "../words/counted";
import {
  CAREFUL,
  emptyWish,
  freeBaysOf,
  freshId,
  ownerOfGroup,
  preparations,
  readyDrives,
  soldFrom,
  supply,
} from "./parts";
import { cannot, type Sequence, type SequenceSetting } from "./sequence";

/** How many drives a further group of a layout can have: what the box takes, in the free bays. */
const countsFor = (layout: LayoutId, { plan, rules }: SequenceSetting): number[] =>
  Array.from({ length: freeBaysOf(plan) }, (_, i) => i + 1).filter(
    (count) => !wrongCount(layoutOf(layout), count, rules),
  );

/** Why no further group suits a pool; null where one does. */
function whyNone(pool: Pool, group: Group, plan: Plan, layout: LayoutId | undefined): string | null {
  const { widening, name, nominalTolerance } = layoutOf(group.layout);
  if (widening === "joins") return "This kind of pool takes single drives: widen it instead.";
  if (nominalTolerance({}) === 0)
    return (
      `If any drive of ${pool.name || "the pool"} fails, data is lost (${name}). Another group would not change ` +
      "that."
    );
  if (layout !== undefined) return null;
  return freeBaysOf(plan) === 0
    ? "No bay is free for another group."
    : `Only ${oneOrMany(freeBaysOf(plan), "one bay is", "bays are")} free, too few for another group.`;
}

/** A further group in the free bays: the space is there at once. */
export const extraGroup: Sequence = {
  id: "extra-group",
  name: "Another group of drives",
  says: "I have free bays and want to add several drives at once.",
  asks: ["group", "layout", "count", "size"],
  variants: ["test", "grow"],
  begin: (setting) => {
    const { plan } = setting;
    const pool = plan.pools[0];
    const group = pool?.groups.at(-1);
    if (!pool || !group) return { cannot: "There is no pool yet that a group could be added to." };
    const layouts = layoutsFor(setting, group.layout);
    const layout = layouts.includes(group.layout) ? group.layout : layouts[0];
    const cannotBe = whyNone(pool, group, plan, layout);
    if (layout === undefined || cannotBe !== null) return { cannot: cannotBe ?? "" };
    const counts = countsFor(layout, setting);
    const largest = Math.max(...drivesOf(plan, group.drives).map((drive) => drive.bytes));
    const there = readyDrives(setting, 1);
    const count =
      layout === group.layout && counts.includes(group.drives.length) ? group.drives.length : (counts[0] ?? 2);
    const owned = there.length >= count ? there.at(-count)?.bytes : undefined;
    return {
      ...emptyWish(setting),
      pool: pool.id,
      group: group.id,
      layout,
      count,
      bytes: owned ?? soldFrom(largest),
      variants: CAREFUL,
    };
  },
  answers: (wish, setting) => ({
    groups: setting.plan.pools.flatMap((pool) => pool.groups.slice(-1).map((group) => group.id)),
    layouts: layoutsFor(setting, ownerOfGroup(setting.plan, wish.group)?.group.layout ?? wish.layout),
    counts: countsFor(wish.layout, setting),
    leastBytes: 1,
  }),
  make: (wish, setting) => {
    const owner = ownerOfGroup(setting.plan, wish.group);
    if (!owner) return cannot("That group is not there at this moment.");
    const { pool, members } = owner;
    const wrong = wrongCount(layoutOf(wish.layout), wish.count, setting.rules);
    if (wrong) return cannot(wrong);
    if (freeBaysOf(setting.plan) < wish.count)
      return cannot(
        `Only ${counted(freeBaysOf(setting.plan), "bay")} ${plural(freeBaysOf(setting.plan), "is", "are")} ` +
          `free for ${counted(wish.count, "drive")}.`,
      );
    const { drives, buys } = supply(setting, wish.count, wish.bytes, members[0]);
    const ids = drives.map((drive) => drive.id);
    return {
      ok: true,
      buys,
      steps: [
        ...preparations(setting, pool, ids, wish.variants, false),
        { kind: "add-group", pool: pool.id, group: freshId(setting, "g"), layout: wish.layout, drives: ids },
        // The space of a further group is there while it is filled for the first time.
        ...(wish.variants.grow ? growSteps(pool, setting.rules).map((step) => ({ ...step, together: true })) : []),
      ],
      does:
        `${wish.count} × ${shortSize({ bytes: wish.bytes }, setting.family)} ` +
        `${plural(wish.count, "joins", "join")} ${pool.name || "the pool"} as another ` +
        `${inText(layoutOf(wish.layout))} group. Nothing is rewritten, and the space is there at once.`,
    };
  },
};

/**
 * Layouts that the box offers, of which a group fits into the free bays, and that bear a failure: the pool's own, and
 * those of which pools of several groups are made.
 */
const layoutsFor = (setting: SequenceSetting, own: LayoutId): LayoutId[] =>
  setting.rules.layouts.filter(
    (id) =>
      (id === own || layoutOf(id).splits) && layoutOf(id).nominalTolerance({}) > 0 && countsFor(id, setting).length > 0,
  );
