import { usableOfGroup, usableOfPool } from "../box/figures";
import type { BoxState } from "../box/state";
import { type Bytes, MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { Drive, Pool, Step, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { driveToBuy } from "../walk/driveToBuy";
import { boxBefore } from "../sequences/boxBefore";
import { replaceInBestOrder } from "../sequences/oneByOne";
import { freeBaysOf, freshId, isChunked, ownerOfGroup, preparations } from "../sequences/parts";
import type { SequenceSetting, Variants } from "../sequences/sequence";
import { growSteps } from "../steps/growSteps";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import { freeIds } from "../records/freeId";
import type { Act } from "./acts";
import type { Kind, Shape } from "./boxes";
import type { Instance } from "./instance";
import { monthsAfter } from "./months";
import type { WayAct } from "./label";

/** An act of a way with the drives that are bought for it. */
export interface LaidAct {
  month: number;
  kind: Act["kind"];
  /** Of each drive that is bought, in bytes and cents. */
  bought: { drive: string; bytes: Bytes; cents: number }[];
  /** The drives that go, by their ids. */
  gone: string[];
  group: string;
}

/** A way as the ordinary steps of a plan. */
export interface LaidOut {
  acts: LaidAct[];
  steps: StepBody[];
  buys: Drive[];
  /** For each act, how many of the steps there are once it is done. */
  ends: number[];
}

/** What is done with care along a way. */
export interface Care {
  variants: Variants;
  /** The first day, as YYYY-MM-DD. */
  day: string;
  family: SequenceSetting["family"];
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** A way is taken step by step, so that each act is thought of in the box that is there by then. */
interface Along {
  instance: Instance;
  care: Care;
  steps: StepBody[];
  buys: Drive[];
  state: BoxState;
  /** The month by which each drive must go. */
  due: Map<string, number>;
  /** A free id for a drive. */
  nextId: () => string;
}

/** What an act was done to. */
type Done = Omit<LaidAct, "month" | "kind">;

function setOut(instance: Instance, care: Care): Along {
  const { plan, groups } = instance;
  const ids = plan.drives.map(({ id }) => id);
  return {
    instance,
    care,
    steps: [],
    buys: [],
    state: boxBefore({ ...plan, steps: [] }, []),
    due: new Map(groups.flatMap(({ drives }) => drives.map(({ drive, due }) => [drive.id, due] as const))),
    nextId: freeIds("b", ids),
  };
}

const settingOf = ({ instance, state, care }: Along): SequenceSetting => ({
  plan: state.plan,
  document: instance.plan,
  rules: instance.rules,
  family: care.family,
  day: care.day,
});

function take(along: Along, body: StepBody): void {
  const { rules, family, day } = settingOf(along);
  along.steps.push(body);
  const step = { ...body, id: "way" } as Step;
  along.state = settle(moduleOf(body).apply(along.state, step, { rules, family, day }), rules);
}

const takeAll = (along: Along, bodies: readonly StepBody[]): void => bodies.forEach((body) => take(along, body));

const poolIn = ({ state, instance }: Along): Pool | null =>
  state.plan.pools.find(({ id }) => id === instance.pool.id) ?? null;

/** Buys a drive like those that the pool has, at the price of the month. */
function buy(along: Along, kind: Kind, month: number): Drive {
  const { instance } = along;
  const pattern = instance.groups[0]?.drives[0]?.drive;
  const like = {
    bytes: kind.bytes,
    medium: pattern?.medium ?? ("hdd" as const),
    bus: pattern?.bus ?? ("sata" as const),
    ...(pattern ? { logicalSector: pattern.logicalSector, physicalSector: pattern.physicalSector } : {}),
  };
  const cents = instance.sold.find(({ bytes }) => bytes === kind.bytes)?.cents[month] ?? 0;
  const drive: Drive = { ...driveToBuy(along.nextId(), like, []), price: cents / instance.centsPerUnit };
  along.buys.push(drive);
  along.state = { ...along.state, plan: { ...along.state.plan, drives: [...along.state.plan.drives, drive] } };
  along.due.set(drive.id, kind.due);
  return drive;
}

/** What is done with care before drives join. */
function prepare(along: Along, drives: readonly Drive[], rewrites: boolean): void {
  const { instance, care } = along;
  const ids = drives.map(({ id }) => id);
  const backsUp = rewrites && instance.pool.groups.length > 0;
  takeAll(along, preparations(settingOf(along), poolIn(along), ids, care.variants, backsUp));
}

function usable({ state, instance }: Along, group: string): Bytes {
  const owner = ownerOfGroup(state.plan, group);
  return owner ? usableOfGroup(state.plan, owner.group, instance.rules) : 0;
}

/** What a group that was widened wants: chunks are spread, and what it holds more is given to the files. */
function afterWidening(along: Along, group: string, was: Bytes): void {
  const { instance, care } = along;
  const owner = ownerOfGroup(along.state.plan, group);
  if (!care.variants.grow || !owner) return;
  if (isChunked(owner.group)) take(along, { kind: "rebalance", group });
  if (usable(along, group) > was) takeAll(along, growSteps(instance.pool, instance.rules));
}

/** Which of a group's drives an act means: of that kind, the one in the worst health, then the first bay. */
function driveOfKind(along: Along, group: string, { bytes, due }: Kind): Drive | undefined {
  const members = ownerOfGroup(along.state.plan, group)?.members ?? [];
  const rank = { failing: 0, watch: 1, good: 2 } as const;
  return members
    .filter((drive) => drive.bytes === bytes && (along.due.get(drive.id) ?? Infinity) === due)
    .sort((a, b) => rank[a.health.state] - rank[b.health.state] || (bayOf(a) ?? 99) - (bayOf(b) ?? 99))[0];
}

/** The group that has just the drives of a shape. */
function groupOfShape(along: Along, { layout, kinds }: Shape): string | undefined {
  const groups = poolIn(along)?.groups ?? [];
  // Acts of a month may be done in another order than they were thought of.
  if (groups.length === 1) return groups[0]?.id;
  const inShort = (drives: readonly { bytes: Bytes; due: number }[]) =>
    drives
      .map(({ bytes, due }) => `${bytes} ${due}`)
      .sort()
      .join();
  const wanted = inShort(kinds);
  return groups.find((group) => {
    const members = ownerOfGroup(along.state.plan, group.id)?.members ?? [];
    const has = members.map(({ id, bytes }) => ({ bytes, due: along.due.get(id) ?? Infinity }));
    return group.layout === layout.id && inShort(has) === wanted;
  })?.id;
}

function replaceOne(along: Along, group: string, old: Drive, by: Drive): void {
  const { instance, care } = along;
  const attached = instance.rules.replacing === "old-attached" && freeBaysOf(along.state.plan) > 0;
  const wish = { variants: { ...care.variants, attached } };
  takeAll(along, replaceInBestOrder(group, [old.id], [by], wish, settingOf(along)).steps);
}

/** A drive that goes for good: the last volume first gives back what will not be there any more. */
function takeOut(along: Along, { id }: Drive): void {
  const { state, steps, instance } = along;
  const before = steps.length;
  take(along, { kind: "remove-drive", drive: id });
  const pool = poolIn(along);
  const volume = pool?.volumes.at(-1);
  if (!pool || !volume) return;
  const others = sum(pool.volumes.slice(0, -1).map(({ bytes }) => bytes));
  const left = usableOfPool(along.state.plan, pool, instance.rules) - others;
  if (volume.bytes <= left) return;
  steps.length = before;
  along.state = state;
  take(along, { kind: "shrink-volume", pool: pool.id, volume: volume.id, bytes: floorTo(left, MiB) });
  take(along, { kind: "remove-drive", drive: id });
}

const done = (along: Along, drives: readonly Drive[], group: string, gone: string[] = []): Done => ({
  bought: drives.map(({ id, bytes, price = 0 }) => ({
    drive: id,
    bytes,
    cents: Math.round(price * along.instance.centsPerUnit),
  })),
  gone,
  group,
});

type ActOf<K extends Act["kind"]> = Extract<Act, { kind: K }>;

function layGroup(along: Along, { layout, bought }: ActOf<"further-group">, month: number): Done {
  const { pool, rules } = along.instance;
  const drives = bought.map((kind) => buy(along, kind, month));
  const ids = drives.map(({ id }) => id);
  const group = freshId(settingOf(along), "g");
  prepare(along, drives, false);
  const what = { pool: pool.id, group, layout: layout.id, drives: ids };
  take(along, poolIn(along) ? { kind: "add-group", ...what } : { kind: "create-group", name: pool.name, ...what });
  if (along.care.variants.grow) takeAll(along, growSteps(pool, rules));
  return done(along, drives, group);
}

function layReplacing(along: Along, { olds, bought }: ActOf<"replace">, group: string, month: number): Done {
  const pairs = olds.flatMap((kind) => {
    const old = driveOfKind(along, group, kind);
    if (!old) return [];
    const by = buy(along, bought, month);
    prepare(along, [by], true);
    replaceOne(along, group, old, by);
    return [{ old, by }];
  });
  return done(
    along,
    pairs.map(({ by }) => by),
    group,
    pairs.map(({ old }) => old.id),
  );
}

/** Carries an act out; what it was done to, or null where that is not there. */
function lay(along: Along, act: Act, month: number): Done | null {
  if (act.kind === "further-group") return layGroup(along, act, month);
  const group = groupOfShape(along, act.shape);
  if (group === undefined) return null;
  const was = usable(along, group);
  switch (act.kind) {
    case "add": {
      const drive = buy(along, act.bought, month);
      prepare(along, [drive], act.shape.layout.widening === "rewrites");
      take(along, { kind: "widen-group", group, drives: [drive.id] });
      afterWidening(along, group, was);
      return done(along, [drive], group);
    }
    case "replace":
      return layReplacing(along, act, group, month);
    case "new-level": {
      const drives = act.bought.map((kind) => buy(along, kind, month));
      prepare(along, drives, true);
      take(along, { kind: "change-level", group, layout: act.to.id, drives: drives.map(({ id }) => id) });
      afterWidening(along, group, was);
      return done(along, drives, group);
    }
    case "take-out": {
      const old = driveOfKind(along, group, act.old);
      if (old) takeOut(along, old);
      return old ? done(along, [], group, [old.id]) : null;
    }
  }
}

// What goes goes last: until then there is nowhere for what it holds.
const inOrder = (way: readonly WayAct[]): WayAct[] =>
  [...way].sort((a, b) => a.month - b.month || Number("old" in a.act) - Number("old" in b.act));

/**
 * Lays a way out as a plan's ordinary steps, each act as the ready-made steps do it: new drives are tested, what is
 * stored is backed up before anything is rewritten, space is claimed and volumes are grown, and in the end all is
 * verified. The steps of a month wait for its day.
 *
 * @param way the acts in the order of the search
 * @returns null where an act names what is not there, which is a mistake of the search
 */
export function laidOut(instance: Instance, way: readonly WayAct[], care: Care): LaidOut | null {
  const along = setOut(instance, care);
  const ordered = inOrder(way);
  const acts: LaidAct[] = [];
  const ends: number[] = [];
  for (const [i, { act, month }] of ordered.entries()) {
    const first = along.steps.length;
    const what = lay(along, act, month);
    if (!what) return null;
    const opening = along.steps[first];
    const isFirst = ordered[i - 1]?.month !== month;
    if (month > 0 && isFirst && opening) along.steps[first] = { ...opening, notBefore: monthsAfter(care.day, month) };
    acts.push({ month, kind: act.kind, ...what });
    const layout = "shape" in act ? act.shape.layout : act.layout;
    const isLast = ordered[i + 1]?.month !== month;
    if (isLast && care.variants.verify && layout.nominalTolerance({}) > 0)
      take(along, { kind: "verify", pool: instance.pool.id });
    ends.push(along.steps.length);
  }
  return { acts, steps: along.steps, buys: along.buys, ends };
}
