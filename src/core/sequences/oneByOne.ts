import { bandsOfGroup, bandsOfPool, usableOfGroup } from "../box/figures";
import { drivesOf, groupOf } from "../box/find";
import type { BoxState } from "../box/state";
import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Drive, Group, Pool, Step, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { shortSize } from "../drives/nameOfDrive";
import { roomOf } from "../drives/room";
import { fateOf } from "../failures/fate";
import { counted } from "../words/counted";
import { claimingFor } from "../layouts/claims";
import { layoutOf } from "../layouts/registry";
import { wrongCount } from "../layouts/problemsOfLayout";
import { filledOf } from "../steps/filledOf";
import { growSteps } from "../steps/growSteps";
import { parityOf } from "../bands/parityOf";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import type { StepSetting } from "../steps/stepModule";
import { costOfStep } from "../steps/swapping";
import { bestOrder } from "./bestOrder";
import { boxBefore } from "./boxBefore";
import {
  CAREFUL,
  emptyWish,
  freeBaysOf,
  groupsOf,
  isChunked,
  ownerOfGroup,
  preparations,
  readyDrives,
  soldFrom,
  supply,
} from "./parts";
import { cannot, type Sequence, type SequenceSetting, type Wish } from "./sequence";
import { ownValue } from "../records/ownValue";
import { IF_WRONG } from "../rules/ifWrong";

const HEALTH = { failing: 0, watch: 1, good: 2 } as const;
const isSuspect = (drive: Drive) =>
  drive.health.state !== "good" || (drive.health.reallocatedSectors ?? 0) + (drive.health.pendingSectors ?? 0) > 0;
const moreSuspect = (a: Drive, b: Drive) =>
  HEALTH[a.health.state] - HEALTH[b.health.state] ||
  (b.health.pendingSectors ?? 0) - (a.health.pendingSectors ?? 0) ||
  (b.health.reallocatedSectors ?? 0) - (a.health.reallocatedSectors ?? 0) ||
  (bayOf(a) ?? 99) - (bayOf(b) ?? 99);

/** The steps of one swap, the box after them, and the space that is missing meanwhile. */
interface Swap {
  steps: StepBody[];
  state: BoxState;
  /** In byte-hours. */
  missing: number;
}

/**
 * One drive changed for another, with what the box wants done so that its space appears.
 *
 * @param end what the group holds in the end, in bytes
 */
function swapIn(
  state: BoxState,
  groupId: string,
  old: string,
  by: Drive,
  wish: Pick<Wish, "variants">,
  end: Bytes,
  setting: StepSetting,
): Swap {
  const { rules } = setting;
  const steps: StepBody[] = [];
  let now = state;
  let missing = 0;
  const usable = () => {
    const owner = ownerOfGroup(now.plan, groupId);
    return owner ? usableOfGroup(now.plan, owner.group, rules) : 0;
  };
  const then = (body: StepBody): BoxState =>
    settle(moduleOf(body).apply(now, { ...body, id: "swap" } as Step, setting), rules);
  const take = (body: StepBody, after = then(body)) => {
    const { hours } = costOfStep(now, after, { ...body, id: "swap" } as Step, setting);
    missing += Math.max(0, end - usable()) * hours.expected;
    steps.push(body);
    now = after;
  };
  const takeIfItGains = (body: StepBody) => {
    const [before, was] = [now, usable()];
    const after = then(body);
    now = after;
    const gains = usable() > was;
    now = before;
    if (gains) take(body, after);
  };
  const owner = ownerOfGroup(state.plan, groupId);
  const from = owner?.members.find((drive) => drive.id === old);
  if (!owner || !from) return { steps, state, missing };
  const isParity = parityOf(bandsOfGroup(state.plan, owner.group, rules)).includes(old);
  const before = usable();
  take(
    isParity
      ? { kind: "change-parity-drive", group: groupId, drive: old, by: by.id }
      : { kind: "replace-drive", drive: old, by: by.id, how: wish.variants.attached ? "attached" : "pulled" },
  );
  if (wish.variants.grow) {
    const claiming = claimingFor(layoutOf(owner.group.layout), rules);
    if (claiming === "per-drive" && by.bytes > from.bytes && !isParity)
      take({ kind: "claim-space", group: groupId, drive: by.id });
    if (claiming === "whole-group") takeIfItGains({ kind: "claim-space", group: groupId });
    if (isChunked(owner.group)) takeIfItGains({ kind: "rebalance", group: groupId });
    if (usable() > before) growSteps(owner.pool, rules).forEach((body) => take(body));
  }
  return { steps, state: now, missing };
}

/** Drives changed one after the other: in which order, by which steps. */
export interface Replacement {
  drives: string[];
  steps: StepBody[];
  /** Space that is missing meanwhile, in byte-hours. */
  missing: number;
  /** Whether it is proved that space cannot come earlier in another order of those that are free to choose. */
  proved: boolean;
}

/** Drives that are changed before all others, whatever space that brings: parity drives, then the suspect ones. */
function urgent(chosen: readonly Drive[], parity: readonly string[]): Drive[] {
  return [
    ...chosen.filter((drive) => parity.includes(drive.id)),
    ...chosen.filter((drive) => !parity.includes(drive.id) && isSuspect(drive)).sort(moreSuspect),
  ];
}

/** A way through the changes, as far as it has been gone. */
interface Along {
  state: BoxState;
  steps: StepBody[];
  done: number;
}

/**
 * Changes drives of a group for larger ones in the best order: parity drives first, since no data drive may be larger;
 * then the suspect ones, the worst first; then so that space comes earliest.
 *
 * @param old ids of the drives to be changed
 * @param news what comes, in the order in which it is used; as many
 * @example replaceInBestOrder("g1", ["d1", "d2"], [b1, b2], wish, setting).drives // ["d2", "d1"] where d2 is suspect
 */
export function replaceInBestOrder(
  groupId: string,
  old: readonly string[],
  news: readonly Drive[],
  wish: Pick<Wish, "variants">,
  { plan, rules, family, day }: SequenceSetting,
): Replacement {
  const owner = ownerOfGroup(plan, groupId);
  if (!owner) return { drives: [], steps: [], missing: 0, proved: true };
  const setting: StepSetting = { rules, family, day };
  const chosen = owner.members.filter((drive) => old.includes(drive.id));
  const { cutsAtSizes = false } = layoutOf(owner.group.layout);
  const first = urgent(chosen, parityOf(bandsOfGroup(plan, owner.group, rules)));
  const rest = chosen.filter((drive) => !first.includes(drive));
  const turns = [...first, ...rest];
  const begin: Along = { state: boxBefore(plan, news), steps: [], done: 0 };
  let end = 0;
  const change = (along: Along, drive: Drive): { state: Along; missing: number } => {
    const { state, steps, done } = along;
    const by = news[done];
    if (!by) return { state: along, missing: 0 };
    const swap = swapIn(state, groupId, drive.id, by, wish, end, setting);
    return { state: { state: swap.state, steps: [...steps, ...swap.steps], done: done + 1 }, missing: swap.missing };
  };
  // What there is at the end; a hybrid keeps the bands that it has, so that it can be less than if it were made anew.
  const last = turns.reduce((along, drive) => change(along, drive).state, begin).state.plan;
  const group = groupOf(last, groupId);
  end = group ? usableOfGroup(last, withoutFilled(group), rules) : 0;
  let along = begin;
  let missing = 0;
  const take = (drives: readonly Drive[]) => {
    for (const drive of drives) {
      const next = change(along, drive);
      along = next.state;
      missing += next.missing;
    }
  };
  take(first);
  const order = bestOrder<Along>({
    count: rest.length,
    kindOf: (place) => `${rest[place]?.bytes} ${rest[place]?.medium} ${rest[place]?.bus}`,
    start: along,
    // What a chunk pool holds before it is balanced depends on where its chunks have come to lie; where a hybrid gets
    // new bands, on which of unequal drives come first.
    orderMatters: isChunked(owner.group) || (cutsAtSizes && new Set(news.map((drive) => drive.bytes)).size > 1),
    change: (state, place) => change(state, rest[place] as Drive),
  });
  const ordered = order.places.flatMap((place) => rest[place] ?? []);
  take(ordered);
  return { drives: [...first, ...ordered].map((drive) => drive.id), steps: along.steps, missing, proved: order.proved };
}

/** A chunk group as it is once it has been balanced. */
function withoutFilled(group: Group): Group {
  const { filled: _filled, ...balanced } = group;
  return balanced;
}

/** Drives changed for others in one go: all pulled, and the new ones filled together; then their space used. */
function replaceTogether(
  group: Group,
  pool: Pool,
  old: readonly Drive[],
  news: readonly Drive[],
  parity: readonly string[],
  { variants }: Pick<Wish, "variants">,
  setting: SequenceSetting,
): Pick<Replacement, "steps" | "proved"> {
  const { rules } = setting;
  const ids = news.slice(0, old.length).map((drive) => drive.id);
  if (areEmptied(pool, group, old, setting)) {
    const gone = old.map((drive): StepBody => ({ kind: "remove-drive", drive: drive.id }));
    const grown: StepBody[] = variants.grow ? [{ kind: "rebalance", group: group.id }, ...growSteps(pool, rules)] : [];
    return { steps: [...gone, { kind: "widen-group", group: group.id, drives: ids }, ...grown], proved: true };
  }
  // A larger parity drive comes before any larger data drive.
  const turns = [...old].sort((a, b) => Number(parity.includes(b.id)) - Number(parity.includes(a.id)));
  const swaps = turns.map((drive, i): StepBody => {
    const by = ids[i] ?? "";
    const together = i > 0 ? { together: true } : {};
    return parity.includes(drive.id)
      ? { kind: "change-parity-drive", group: group.id, drive: drive.id, by, ...together }
      : { kind: "replace-drive", drive: drive.id, by, how: "pulled", ...together };
  });
  const claiming = claimingFor(layoutOf(group.layout), rules);
  const data = turns.flatMap((drive, i) => (parity.includes(drive.id) ? [] : (ids[i] ?? [])));
  const claims: StepBody[] =
    claiming === "per-drive"
      ? data.map((drive) => ({ kind: "claim-space", group: group.id, drive }))
      : claiming === "whole-group"
        ? [{ kind: "claim-space", group: group.id }]
        : [];
  return { steps: [...swaps, ...(variants.grow ? [...claims, ...growSteps(pool, rules)] : [])], proved: true };
}

/**
 * Whether drives of a chunk pool hold nothing, so that they can leave all at once: no chunk lies on them, and the
 * others are enough for what there is.
 */
function areEmptied(pool: Pool, group: Group, old: readonly Drive[], { plan, rules }: SequenceSetting): boolean {
  const layout = layoutOf(group.layout);
  const left = group.drives.length - old.length;
  if (!layout.chunked || wrongCount(layout, left, rules, group.options) !== null) return false;
  const filled = filledOf(plan, pool, group, rules);
  return old.every((drive) => (ownValue(filled, drive.id) ?? 0) === 0);
}

/** Why drives cannot be changed all at once, or null: the pool must bear that they are all missing. */
function togetherRefusal(
  pool: Pool,
  group: Group,
  old: readonly Drive[],
  { variants }: Wish,
  setting: SequenceSetting,
): string | null {
  const { plan, rules } = setting;
  if (!variants.together || old.length < 2 || areEmptied(pool, group, old, setting)) return null;
  if (variants.attached)
    return "Drives that stay in their bays meanwhile are replaced one after the other. Choose only one of the two.";
  const { rebuildsTogether, name } = layoutOf(group.layout);
  const fate = fateOf(bandsOfPool(plan, pool, rules), new Set(old.map((drive) => drive.id)));
  if (fate.kind === "degraded" && rebuildsTogether) return null;
  return fate.kind === "degraded"
    ? `The drives of a ${name} are filled one at a time: change them one after the other.`
    : `Without ${counted(old.length, "drive")} at once data is lost: change them one after the other.`;
}

/** Drives changed for larger ones, one after the other. */
export const oneByOne: Sequence = {
  id: "one-by-one",
  name: "Larger drives, one by one",
  says: "I change the drives for bigger ones, one after the other.",
  asks: ["group", "drives", "size"],
  variants: ["attached", "together", "spareFirst", "test", "backUp", "verify", "grow"],
  begin: (setting) => {
    const target = groupsOf(setting.plan)[0];
    if (!target) return { cannot: "There is no pool yet whose drives could be changed." };
    const members = drivesOf(setting.plan, target.group.drives);
    const sizes = members.map((drive) => drive.bytes);
    const [least, largest] = [Math.min(...sizes), Math.max(...sizes)];
    const there = readyDrives(setting, least + 1).at(-1);
    // Drives of mixed sizes are brought up to the largest; drives of one size are doubled.
    const bytes = there?.bytes ?? (least < largest ? largest : soldFrom(2 * largest));
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      bytes,
      drives: smallerThan(members, bytes),
      variants: { ...CAREFUL, attached: setting.rules.replacing === "old-attached" && freeBaysOf(setting.plan) > 0 },
    };
  },
  answers: (wish, { plan }) => {
    const owner = ownerOfGroup(plan, wish.group);
    const members = owner?.members ?? [];
    return {
      groups: groupsOf(plan).map(({ group }) => group.id),
      drives: members.map((drive) => drive.id),
      leastBytes: Math.min(...members.map((drive) => drive.bytes)),
    };
  },
  make: (wish, setting) => {
    const owner = ownerOfGroup(setting.plan, wish.group);
    if (!owner) return cannot("That group is not there at this moment.");
    const { group, pool, members } = owner;
    const old = members.filter((drive) => wish.drives.includes(drive.id));
    const parity = parityOf(bandsOfGroup(setting.plan, group, setting.rules));
    const refused =
      swapRefusal(group) ??
      sizeRefusal(wish, setting, members, old, parity) ??
      togetherRefusal(pool, group, old, wish, setting) ??
      boxRefusal(wish, setting);
    if (refused !== null) return cannot(refused);
    const { variants } = wish;
    const { drives: news, buys } = supply(setting, old.length + (variants.spareFirst ? 1 : 0), wish.bytes, members[0]);
    const spare = variants.spareFirst ? news.at(-1) : undefined;
    const ids = (drives: readonly Drive[]) => drives.map((drive) => drive.id);
    const together = variants.together && old.length > 1;
    const replacement = together
      ? replaceTogether(group, pool, old, news, parity, wish, setting)
      : replaceInBestOrder(group.id, ids(old), news.slice(0, old.length), wish, setting);
    const steps: StepBody[] = [
      ...preparations(setting, pool, ids(news), variants),
      ...(spare ? [{ kind: "set-spare", pool: pool.id, drive: spare.id } as StepBody] : []),
      ...replacement.steps,
      ...(variants.verify ? [{ kind: "verify", pool: pool.id } as StepBody] : []),
    ];
    return {
      ok: true,
      steps,
      buys,
      ...(old.length > 1 && !together ? { order: orderWords(old, parity, wish, replacement.proved) } : {}),
      does: doesWords(old.length, pool.name || "the pool", wish, setting.family),
    };
  },
};

/** Why no drive of a group can be replaced with the data kept, or null. */
export function swapRefusal(group: Group): string | null {
  const { takesNoSpare, name } = layoutOf(group.layout);
  return takesNoSpare
    ? `No drive of a ${name} can be replaced with the data kept. Make it again and restore it from a backup.`
    : null;
}

/** Why drives of a size cannot take the place of these, or null. */
function sizeRefusal(
  wish: Wish,
  { rules, family }: SequenceSetting,
  members: readonly Drive[],
  old: readonly Drive[],
  parity: readonly string[],
): string | null {
  if (old.length === 0) return "Choose the drives that are to be changed.";
  const tooLarge = old.find((drive) => drive.bytes > wish.bytes);
  if (tooLarge)
    return (
      `${shortSize(tooLarge, family)} is more than ${shortSize({ bytes: wish.bytes }, family)}. Do not choose ` +
      "that drive, or choose a larger size."
    );
  const room = roomOf({ id: "new", bytes: wish.bytes }, rules).length;
  const stays = (drive: Drive) => parity.includes(drive.id) && !old.includes(drive);
  return members.some((drive) => stays(drive) && roomOf(drive, rules).length < room)
    ? "No data drive may be larger than the parity drive. Change the parity drive too, or choose a smaller size."
    : null;
}

/** Why the box does not do it as it is wished, or null. */
function boxRefusal({ variants }: Wish, { plan, rules }: SequenceSetting): string | null {
  if (variants.attached && rules.replacing !== "old-attached")
    return `Your box replaces a drive only after the old one is pulled. ${IF_WRONG}`;
  if (variants.attached && freeBaysOf(plan) === 0)
    return "No bay is free for a new drive while the old one is still in. Pull the old one first.";
  if (!variants.spareFirst) return null;
  if (rules.hotSpares === "none") return `Your box has no hot spares. ${IF_WRONG}`;
  return freeBaysOf(plan) < (variants.attached ? 2 : 1) ? "No bay is free for a hot spare." : null;
}

/** In which order the drives are changed, and why. */
function orderWords(old: readonly Drive[], parity: readonly string[], { variants }: Wish, proved: boolean): string {
  const earliest = proved
    ? "brings the space earliest (all were compared)"
    : "brings the space earliest of those compared (not all were)";
  const first = [
    ...(old.some((drive) => parity.includes(drive.id)) ? ["the parity drive first"] : []),
    ...(old.some((drive) => isSuspect(drive) && !parity.includes(drive.id)) ? ["worn drives before healthy ones"] : []),
  ];
  const rest = variants.grow ? earliest : "goes by bay";
  return first.length === 0
    ? `This order ${rest}.`
    : `In this order: ${first.join(", then ")}. Beyond that it ${rest}.`;
}

function doesWords(count: number, pool: string, wish: Wish, family: UnitFamily): string {
  const size = shortSize({ bytes: wish.bytes }, family);
  if (wish.variants.together && count > 1)
    return (
      `${count} drives of ${pool} are replaced by ${size} drives all at once: all are pulled, and the new ones ` +
      "filled in one go."
    );
  const how = wish.variants.attached
    ? "each filled while the old one is still in its bay"
    : "each pulled before its replacement is filled";
  return count === 1
    ? `One drive of ${pool} is replaced by one of ${size}, ${how}.`
    : `${count} drives of ${pool} are replaced by ${size} drives, one after the other, ${how}.`;
}

/** The drives that are smaller than a size. */
const smallerThan = (members: readonly Drive[], bytes: Bytes): string[] =>
  members.filter((drive) => drive.bytes < bytes).map((drive) => drive.id);
