import { inText } from "../layouts/inText";
import { capital } from "../words/capital";
import { withArticle } from "../words/inSentence";
import { usableOf } from "../bands/contents";
import { bandsOfGroup, usableOfGroup } from "../box/figures";
import type { Drive, Group, LayoutId, StepBody, StepOf } from "../document/plan";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";
import { roomOf } from "../drives/room";
import type { Layout } from "../layouts/layout";
import { levelVerdict } from "../layouts/levelVerdict";
import { mirror } from "../layouts/mirror";
import { doubleParity, singleParity } from "../layouts/parity";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { poolReserve } from "../ledger/ledger";
import { IF_WRONG } from "../rules/ifWrong";
import { growSteps } from "../steps/growSteps";
import { parityOf } from "../bands/parityOf";
import { counted, plural } from "../words/counted";
import {
  CAREFUL,
  emptyWish,
  freeBaysOf,
  groupsOf,
  ownerOfGroup,
  preparations,
  readyDrives,
  soldFrom,
  supply,
} from "./parts";
import { cannot, type Made, type Sequence, type SequenceSetting, type Wish } from "./sequence";

/** The rungs that this sequence climbs. */
const LADDER: readonly LayoutId[] = [mirror.id, singleParity.id, doubleParity.id];

const isBelowTop = (layout: LayoutId): boolean => LADDER.slice(0, -1).includes(layout);

/** The layout that a group's can become of which something is true, or undefined. */
const nextLayout = (group: Pick<Group, "layout">, is: (layout: Layout) => boolean): Layout | undefined =>
  layoutOf(group.layout)
    .becomes.map(({ to }) => layoutOf(to))
    .find(is);

/** What a hybrid becomes that survives the loss of another drive. */
const nextHybrid = (group: Pick<Group, "layout">) => nextLayout(group, (layout) => layout.cutsAtSizes === true);
/** What a group with a parity drive becomes that gets one more. */
const nextParity = (group: Pick<Group, "layout">) =>
  nextLayout(group, (layout) => layout.dedicatedParity !== undefined);

/** The levels above a group's own that the box offers. */
const levelsAbove = (layout: LayoutId, { rules }: SequenceSetting): LayoutId[] =>
  LADDER.slice(LADDER.indexOf(layout) + 1).filter((id) => rules.layouts.includes(id));

/** The largest member decides what may join everywhere. */
const largestOf = (members: readonly Drive[]): number => Math.max(...members.map((drive) => drive.bytes));

type LevelStep = Omit<StepOf<"change-level">, "id">;

/** The steps by which a group goes from its level to another with drives that join, or why the box does not. */
function levelSteps(
  group: { id: string; layout: LayoutId },
  to: LayoutId,
  members: readonly Drive[],
  joining: readonly Drive[],
  { rules }: SequenceSetting,
): LevelStep[] | string {
  const equal = new Set(members.map((drive) => roomOf(drive, rules).length)).size === 1;
  const verdict = levelVerdict(
    { from: group.layout, to, drives: members.length, joining: joining.length, leaving: 0, equal },
    rules,
  );
  const change = (layout: LayoutId, drives: readonly Drive[]): LevelStep => ({
    kind: "change-level",
    group: group.id,
    layout,
    drives: drives.map((drive) => drive.id),
  });
  switch (verdict.kind) {
    case "possible":
      return [change(to, joining)];
    case "by-way-of":
      return verdict.levels.map((layout, i) =>
        change(layout, i < verdict.levels.length - 1 ? joining.slice(i, i + 1) : joining.slice(i)),
      );
    case "refused":
      return verdict.reason;
    case "no-path":
      return (
        `Your box has no way from ${inText(layoutOf(group.layout))} to ${inText(layoutOf(to))} that keeps the ` +
        "data. Move through a backup instead."
      );
  }
}

/** What all changes of level have in common: drives that join, the levels, and growing after each that gives space. */
function makeLevels(
  wish: Wish,
  setting: SequenceSetting,
  to: LayoutId,
  joins: number,
  bytes: number,
  does: (group: string, joining: string) => string,
): Made {
  const owner = ownerOfGroup(setting.plan, wish.group);
  if (!owner) return cannot("That group is not there at this moment.");
  const { group, pool, members } = owner;
  const { rules, family } = setting;
  if (freeBaysOf(setting.plan) < joins)
    return cannot(
      `${counted(joins, "bay")} must be free for the ${plural(joins, "drive that joins", "drives that join")}, ` +
        "and " +
        (freeBaysOf(setting.plan) === 0
          ? "none is"
          : `only ${freeBaysOf(setting.plan)} ${plural(freeBaysOf(setting.plan), "is", "are")}`) +
        ".",
    );
  const { drives: joining, buys } = supply(setting, joins, bytes, members[0]);
  const levels = levelSteps(group, to, members, joining, setting);
  if (typeof levels === "string") return cannot(levels);
  const steps = preparations(
    setting,
    pool,
    joining.map((drive) => drive.id),
    wish.variants,
  );
  let drives = [...members];
  let usable = usableOfGroup(setting.plan, group, rules);
  for (const level of levels) {
    steps.push(level);
    drives = [...drives, ...joining.filter((drive) => level.drives.includes(drive.id))];
    if (wrongCount(layoutOf(level.layout), drives.length, rules, group.options)) continue;
    const then = usableOf(
      layoutOf(level.layout).layOut(
        drives.map((drive) => roomOf(drive, rules)),
        { arrayFormat: rules.arrayFormat, options: group.options ?? {} },
      ),
    );
    if (wish.variants.grow && then > usable) steps.push(...growSteps(pool, rules));
    usable = then;
  }
  if (wish.variants.verify) steps.push({ kind: "verify", pool: pool.id });
  return {
    ok: true,
    steps,
    buys,
    does: does(
      pool.name || "The pool",
      joining.length === 0 ? "the same drives" : `${joining.length} × ${shortSize({ bytes }, family)} more`,
    ),
  };
}

/** A mirror that becomes single parity, and double parity. */
export const mirrorToParity: Sequence = {
  id: "mirror-to-parity",
  name: "From a mirror to RAID 5, and on to RAID 6",
  says: "I want more space out of my mirror, or to survive a second failure, without copying everything away.",
  asks: ["group", "layout", "size"],
  variants: ["test", "backUp", "verify", "grow"],
  begin: (setting) => {
    const target = groupsOf(setting.plan).find(
      ({ group }) => isBelowTop(group.layout) && levelsAbove(group.layout, setting).length > 0,
    );
    if (!target)
      return { cannot: "No group of this box is a mirror or single parity that could become RAID 5 or RAID 6 here." };
    const members = ownerOfGroup(setting.plan, target.group.id)?.members ?? [];
    const levels = levelsAbove(target.group.layout, setting);
    const most =
      levels
        .filter((id) => LADDER.indexOf(id) - LADDER.indexOf(target.group.layout) <= freeBaysOf(setting.plan))
        .at(-1) ?? levels[0];
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      layout: most ?? "raid5",
      bytes: readyDrives(setting, largestOf(members))[0]?.bytes ?? soldFrom(largestOf(members)),
      variants: CAREFUL,
    };
  },
  answers: (wish, setting) => {
    const owner = ownerOfGroup(setting.plan, wish.group);
    return {
      groups: groupsOf(setting.plan)
        .filter(({ group }) => isBelowTop(group.layout))
        .map(({ group }) => group.id),
      layouts: owner ? levelsAbove(owner.group.layout, setting) : [],
      leastBytes: Math.min(...(owner?.members ?? []).map((drive) => drive.bytes)),
    };
  },
  make: (wish, setting) => {
    const owner = ownerOfGroup(setting.plan, wish.group);
    const [from, to] = [LADDER.indexOf(owner?.group.layout ?? "raid1"), LADDER.indexOf(wish.layout)];
    if (to <= from) return cannot("That group has this level already.");
    return makeLevels(
      wish,
      setting,
      wish.layout,
      to - from,
      wish.bytes,
      (pool, joining) =>
        `${pool} goes from ${inText(layoutOf(LADDER[from] ?? "raid1"))} to ${LADDER.slice(from + 1, to + 1)
          .map((id) => inText(layoutOf(id)))
          .join(" and on to ")} with ${joining}, and keeps its data.`,
    );
  },
};

/** How many drives more a hybrid needs so that it survives the loss of two and its volumes still fit. */
function joinsForHybridTwo(setting: SequenceSetting, group: string, bytes: number): number | null {
  const owner = ownerOfGroup(setting.plan, group);
  if (!owner) return null;
  const { rules } = setting;
  const next = nextHybrid(owner.group);
  if (!next) return null;
  const others = owner.pool.groups
    .filter((each) => each.id !== group)
    .reduce((sum, each) => sum + usableOfGroup(setting.plan, each, rules), 0);
  const asked = owner.pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
  for (let joins = 0; joins <= freeBaysOf(setting.plan); joins += 1) {
    const rooms = [
      ...owner.members.map((drive) => roomOf(drive, rules)),
      ...Array.from({ length: joins }, (_, i) => roomOf({ id: `new${i}`, bytes }, rules)),
    ];
    if (wrongCount(next, rooms.length, rules)) continue;
    const data = others + usableOf(next.layOut(rooms, { arrayFormat: rules.arrayFormat, options: {} }));
    if (data - poolReserve(data, rules) >= asked) return joins;
  }
  return null;
}

/** A hybrid that survives the loss of two drives instead of one. */
export const hybridTwo: Sequence = {
  id: "hybrid-two",
  name: "A hybrid that survives the loss of two drives",
  says: "I want my hybrid to survive a second failure.",
  asks: ["group", "size"],
  variants: ["test", "backUp", "verify", "grow"],
  begin: (setting) => {
    const target = groupsOf(setting.plan).find(({ group }) => nextHybrid(group));
    if (!target) return { cannot: "No group of this box is a hybrid that survives the loss of one drive." };
    const next = nextHybrid(target.group);
    if (!next || !setting.rules.layouts.includes(next.id))
      return { cannot: `Your box offers no hybrid that survives the loss of two drives. ${IF_WRONG}` };
    const members = ownerOfGroup(setting.plan, target.group.id)?.members ?? [];
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      layout: next.id,
      bytes: soldFrom(largestOf(members)),
      variants: CAREFUL,
    };
  },
  answers: (wish, { plan }) => ({
    groups: groupsOf(plan)
      .filter(({ group }) => nextHybrid(group))
      .map(({ group }) => group.id),
    leastBytes: Math.min(...(ownerOfGroup(plan, wish.group)?.members ?? []).map((drive) => drive.bytes)),
  }),
  make: (wish, setting) => {
    const joins = joinsForHybridTwo(setting, wish.group, wish.bytes);
    if (joins === null)
      return cannot(
        "With as many drives more as there are free bays the volumes would still not fit, or the box wants " +
          "more drives for it. Choose a larger size, or make a volume smaller first.",
      );
    return makeLevels(
      wish,
      setting,
      wish.layout,
      joins,
      wish.bytes,
      (pool, joining) =>
        `${pool} becomes a hybrid that survives the loss of any two drives, with ${joining}, and keeps its data.`,
    );
  },
};

/** A second parity drive. */
export const secondParity: Sequence = {
  id: "second-parity",
  name: "A second parity drive",
  says: "I want to be safe if two drives fail.",
  asks: ["group", "size"],
  variants: ["test", "backUp", "verify"],
  begin: (setting) => {
    const target = groupsOf(setting.plan).find(({ group }) => nextParity(group));
    const next = target && nextParity(target.group);
    if (!next) return { cannot: "No group of this box has one parity drive." };
    const members = ownerOfGroup(setting.plan, target.group.id)?.members ?? [];
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      layout: next.id,
      bytes: readyDrives(setting, largestOf(members))[0]?.bytes ?? soldFrom(largestOf(members)),
      variants: CAREFUL,
    };
  },
  answers: (wish, { plan }) => ({
    groups: groupsOf(plan)
      .filter(({ group }) => nextParity(group))
      .map(({ group }) => group.id),
    leastBytes: Math.min(...(ownerOfGroup(plan, wish.group)?.members ?? []).map((drive) => drive.bytes)),
  }),
  make: (wish, setting) =>
    makeLevels(
      wish,
      setting,
      wish.layout,
      1,
      wish.bytes,
      (pool) =>
        `${pool} gets a second parity drive of ${shortSize({ bytes: wish.bytes }, setting.family)}: it then ` +
        "survives the loss of any two drives.",
    ),
};

/** A larger parity drive, so that larger data drives can follow. */
export const largerParity: Sequence = {
  id: "larger-parity",
  name: "A larger parity drive",
  says: "I want to use larger drives than my parity drive.",
  asks: ["group", "size"],
  variants: ["test", "backUp", "verify"],
  begin: (setting) => {
    const target = groupsOf(setting.plan).find(({ group }) => layoutOf(group.layout).dedicatedParity);
    if (!target) return { cannot: "No group of this box has a parity drive." };
    const members = ownerOfGroup(setting.plan, target.group.id)?.members ?? [];
    const there = readyDrives(setting, largestOf(members) + 1)[0];
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      bytes: there?.bytes ?? soldFrom(largestOf(members) + 1),
      variants: CAREFUL,
    };
  },
  answers: (wish, { plan }) => ({
    groups: groupsOf(plan)
      .filter(({ group }) => layoutOf(group.layout).dedicatedParity)
      .map(({ group }) => group.id),
    leastBytes: largestOf(ownerOfGroup(plan, wish.group)?.members ?? []),
  }),
  make: (wish, setting) => {
    const owner = ownerOfGroup(setting.plan, wish.group);
    if (!owner) return cannot("That group is not there at this moment.");
    const { group, pool, members } = owner;
    const parity = parityOf(bandsOfGroup(setting.plan, group, setting.rules));
    const smallest = members.filter((drive) => parity.includes(drive.id)).sort((a, b) => a.bytes - b.bytes)[0];
    if (!smallest) return cannot("There is no parity drive at this moment: the drives have no space in common.");
    if (wish.bytes <= smallest.bytes)
      return cannot(`The parity drive has ${shortSize(smallest, setting.family)} already. Choose a larger size.`);
    const { drives: news, buys } = supply(setting, 1, wish.bytes, smallest);
    const by = news[0];
    if (!by) return cannot("There is no drive for it.");
    const steps: StepBody[] = [
      ...preparations(setting, pool, [by.id], wish.variants),
      { kind: "change-parity-drive", group: group.id, drive: smallest.id, by: by.id },
      ...(wish.variants.verify ? [{ kind: "verify", pool: pool.id } as StepBody] : []),
    ];
    return {
      ok: true,
      steps,
      buys,
      does:
        `${capital(withArticle(shortSize(by, setting.family)))} drive takes the place of ` +
        `${nameOfDrive(smallest, setting.family)} as the parity drive of ${pool.name || "the pool"}: data drives ` +
        "of up to that size can follow.",
    };
  },
};
