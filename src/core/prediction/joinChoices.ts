import { usableOf } from "../bands/contents";
import { usableOfGroup } from "../box/figures";
import { drivesOf } from "../box/find";
import type { Bytes } from "../bytes/bytes";
import { formatChange, type UnitFamily } from "../bytes/formatBytes";
import type { Group, LayoutId, Plan } from "../document/plan";
import { toleranceOf } from "../failures/tolerance";
import { fullName } from "../layouts/inText";
import { levelVerdict } from "../layouts/levelVerdict";
import { layOutGroup } from "../layouts/layOutGroup";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { counted } from "../words/counted";

/** What a group becomes when drives join it, with its layout or with one that the box changes it to on the way. */
export interface JoinChoice {
  layout: LayoutId;
  /** Whether it is the layout that the group has. */
  same: boolean;
  drives: number;
  usableBytes: Bytes;
  /** Against the group as it is; negative where it gets smaller. */
  gainBytes: Bytes;
  tolerance: number;
}

/**
 * What becomes of a group when drives are added to it: with the layout that it has, and with each that the box offers
 * and can change it to with just these drives. What is larger than parity, or otherwise refused, is a matter of checks.
 *
 * @param joining ids of the drives that are added
 * @example joinChoices(mirrorOfTwo4TB, group, ["x1"])
 * // [{ layout: "raid1", same: true, gainBytes: 0, tolerance: 2, … }, { layout: "raid5", gainBytes: 4e12, … }]
 */
export function joinChoices(plan: Plan, group: Group, joining: readonly string[]): JoinChoice[] {
  const rules = rulesOf(plan.box.rules);
  const members = drivesOf(plan, group.drives);
  const added = drivesOf(
    plan,
    joining.filter((id) => !group.drives.includes(id)),
  );
  if (added.length === 0) return [];
  const now = usableOfGroup(plan, group, rules);
  const change = {
    from: group.layout,
    drives: members.length,
    joining: added.length,
    leaving: 0,
    equal: new Set([...members, ...added].map(({ bytes }) => bytes)).size === 1,
  };
  const rungs = layoutOf(group.layout).becomes.filter(
    ({ to }) => rules.layouts.includes(to) && levelVerdict({ ...change, to }, rules).kind === "possible",
  );
  return [group.layout, ...rungs.map(({ to }) => to)].flatMap((layout): JoinChoice[] => {
    const all = [...members, ...added];
    if (wrongCount(layoutOf(layout), all.length, rules)) return [];
    const same = layout === group.layout;
    const bands = layOutGroup({ ...(same ? group : { id: group.id, options: {} }), layout }, all, rules);
    const usableBytes = usableOf(bands);
    return [
      { layout, same, drives: all.length, usableBytes, gainBytes: usableBytes - now, tolerance: toleranceOf(bands) },
    ];
  });
}

/**
 * A choice in words.
 *
 * @example joinWords({ layout: "raid1", drives: 3, gainBytes: 0, tolerance: 2, … }, "TB")
 * // "RAID 1 (mirror) of 3 drives: the space stays, survives any 2"
 */
export function joinWords({ layout, drives, gainBytes, tolerance }: JoinChoice, family: UnitFamily): string {
  const space = gainBytes === 0 ? "the space stays" : formatChange(gainBytes, family);
  const survives = tolerance === 0 ? "a failure loses data" : `survives any ${tolerance === 1 ? "one" : tolerance}`;
  return `${fullName(layoutOf(layout))} of ${counted(drives, "drive")}: ${space}, ${survives}`;
}
