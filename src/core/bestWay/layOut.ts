import { usableOfGroup, usableOfPool } from "../box/figures";
import type { BoxState } from "../box/state";
import { type Bytes, MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { Drive, Plan, Step, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { driveToBuy } from "../walk/driveToBuy";
import { layoutOf } from "../layouts/registry";
import { boxBefore } from "../sequences/boxBefore";
import { replaceInBestOrder } from "../sequences/oneByOne";
import { CAREFUL, freeBaysOf, freshId, isChunked, ownerOfGroup, preparations } from "../sequences/parts";
import type { SequenceSetting, Variants } from "../sequences/sequence";
import { growSteps } from "../steps/growSteps";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import { freeIds } from "../records/freeId";
import type { Act } from "./acts";
import type { Kind, Shape } from "./boxes";
import type { Instance } from "./instance";
import { monthsAfter } from "./months";
import type { WayAct } from "./search";

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
  steps: StepBody[];
  state: BoxState;
  /** The month by which each drive must go. */
  due: Map<string, number>;
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
function groupOfShape(along: Along, pool: string, { layout, kinds }: Shape): string | undefined {
  const wanted = kinds
    .map(({ bytes, due }) => `${bytes} ${due}`)
    .sort()
    .join();
  const groups = along.state.plan.pools.find(({ id }) => id === pool)?.groups ?? [];
  // Acts of a month may be done in another order than they were thought of.
  if (groups.length === 1) return groups[0]?.id;
  return groups.find((group) => {
    const members = ownerOfGroup(along.state.plan, group.id)?.members ?? [];
    const has = members
      .map((drive) => `${drive.bytes} ${along.due.get(drive.id) ?? Infinity}`)
      .sort()
      .join();
    return group.layout === layout.id && has === wanted;
  })?.id;
}

/**
 * Lays a way out as a plan's ordinary steps, each act as the ready-made steps do it: new drives are tested, what is
 * stored is backed up before anything is rewritten, space is claimed and volumes are grown. The steps of a month wait
 * for its day.
 *
 * @param way the acts in the order of the search
 * @returns null where an act names what is not there, which is a mistake of the search
 */
export function laidOut(instance: Instance, way: readonly WayAct[], care: Care): LaidOut | null {
  const { rules, pool, plan } = instance;
  const { variants, family, day } = care;
  const next = freeIds(
    "b",
    plan.drives.map(({ id }) => id),
  );
  const buys: Drive[] = [];
  const acts: LaidAct[] = [];
  const ends: number[] = [];
  const begin: Plan = { ...plan, steps: [] };
  const along: Along = {
    steps: [],
    state: boxBefore(begin, []),
    due: new Map(instance.groups.flatMap(({ drives }) => drives.map(({ drive, due }) => [drive.id, due] as const))),
  };
  const setting = (): SequenceSetting => ({ plan: along.state.plan, document: plan, rules, family, day });
  const take = (body: StepBody) => {
    along.steps.push(body);
    const step = { ...body, id: "way" } as Step;
    along.state = settle(moduleOf(body).apply(along.state, step, { rules, family, day }), rules);
  };
  const pattern = instance.groups[0]?.drives[0]?.drive;
  const priceOf = (bytes: Bytes, month: number): number =>
    instance.sold.find((each) => each.bytes === bytes)?.cents[month] ?? 0;
  const buy = (kind: Kind, month: number): Drive => {
    const like = {
      bytes: kind.bytes,
      medium: pattern?.medium ?? ("hdd" as const),
      bus: pattern?.bus ?? ("sata" as const),
    };
    const sectors = pattern ? { logicalSector: pattern.logicalSector, physicalSector: pattern.physicalSector } : {};
    const drive: Drive = {
      ...driveToBuy(next(), { ...like, ...sectors }, []),
      price: priceOf(kind.bytes, month) / 100,
    };
    buys.push(drive);
    along.state = { ...along.state, plan: { ...along.state.plan, drives: [...along.state.plan.drives, drive] } };
    along.due.set(drive.id, kind.due);
    return drive;
  };
  const prepare = (drives: readonly Drive[], rewrites: boolean) =>
    preparations(
      setting(),
      along.state.plan.pools.find(({ id }) => id === pool.id) ?? null,
      drives.map(({ id }) => id),
      variants,
      rewrites && pool.groups.length > 0,
    ).forEach(take);
  const usable = (id: string): Bytes => {
    const owner = ownerOfGroup(along.state.plan, id);
    return owner ? usableOfGroup(along.state.plan, owner.group, rules) : 0;
  };
  const grow = () => variants.grow && growSteps(pool, rules).forEach(take);
  /** A group that was widened: chunks are spread, and what it holds more is given to the files. */
  const afterWidening = (id: string, was: Bytes) => {
    const owner = ownerOfGroup(along.state.plan, id);
    if (variants.grow && owner && isChunked(owner.group)) take({ kind: "rebalance", group: id });
    if (usable(id) > was) grow();
  };
  const replace = (group: string, old: Drive, by: Drive) => {
    const attached = rules.replacing === "old-attached" && freeBaysOf(along.state.plan) > 0;
    const wished = { variants: { ...variants, attached } };
    replaceInBestOrder(group, [old.id], [by], wished, setting()).steps.forEach(take);
  };

  /** A drive that goes for good: the last volume first gives back what will not be there any more. */
  const takeOut = ({ id }: Drive) => {
    const { state, steps } = along;
    const before = steps.length;
    take({ kind: "remove-drive", drive: id });
    const then = along.state.plan;
    const after = then.pools.find((each) => each.id === pool.id);
    const left = after
      ? usableOfPool(then, after, rules) - sum(after.volumes.slice(0, -1).map(({ bytes }) => bytes))
      : 0;
    const volume = after?.volumes.at(-1);
    if (!volume || volume.bytes <= left) return;
    along.steps.length = before;
    along.state = state;
    take({ kind: "shrink-volume", pool: pool.id, volume: volume.id, bytes: floorTo(left, MiB) });
    take({ kind: "remove-drive", drive: id });
  };

  const named = (drives: readonly Drive[], group: string, gone: string[] = []) => ({
    bought: drives.map(({ id, bytes, price = 0 }) => ({ drive: id, bytes, cents: Math.round(price * 100) })),
    gone,
    group,
  });

  /** Carries an act out; the group that it was done to, or null. */
  function carryOut({ act, month }: WayAct): Omit<LaidAct, "month" | "kind"> | null {
    if (act.kind === "add-group") {
      const drives = act.bought.map((kind) => buy(kind, month));
      const ids = drives.map(({ id }) => id);
      const group = freshId(setting(), "g");
      prepare(drives, false);
      const isFirst = !along.state.plan.pools.some(({ id }) => id === pool.id);
      const what = { pool: pool.id, group, layout: act.layout.id, drives: ids };
      take(isFirst ? { kind: "create-group", name: pool.name, ...what } : { kind: "add-group", ...what });
      grow();
      return named(drives, group);
    }
    const group = groupOfShape(along, pool.id, act.shape);
    if (group === undefined) return null;
    const was = usable(group);
    switch (act.kind) {
      case "add": {
        const drive = buy(act.bought, month);
        prepare([drive], act.shape.layout.widening === "rewrites");
        take({ kind: "widen-group", group, drives: [drive.id] });
        afterWidening(group, was);
        return named([drive], group);
      }
      case "replace": {
        const pairs = act.olds.map((kind) => {
          const old = driveOfKind(along, group, kind);
          const drive = old && buy(act.bought, month);
          if (drive) prepare([drive], true);
          if (drive) replace(group, old, drive);
          return { old, drive };
        });
        return named(
          pairs.flatMap(({ drive }) => drive ?? []),
          group,
          pairs.flatMap(({ old }) => old?.id ?? []),
        );
      }
      case "change-level": {
        const drives = act.bought.map((kind) => buy(kind, month));
        prepare(drives, true);
        take({ kind: "change-level", group, layout: act.to.id, drives: drives.map(({ id }) => id) });
        afterWidening(group, was);
        return named(drives, group);
      }
      case "take-out": {
        const old = driveOfKind(along, group, act.old);
        if (old) takeOut(old);
        return old ? named([], group, [old.id]) : null;
      }
    }
  }

  // What goes goes last: until then there is nowhere for what it holds.
  const ordered = [...way].sort(
    (a, b) => a.month - b.month || Number(a.act.kind === "take-out") - Number(b.act.kind === "take-out"),
  );
  let month = -1;
  for (const each of ordered) {
    const first = along.steps.length;
    const done = carryOut(each);
    if (!done) return null;
    const opening = along.steps[first];
    if (each.month > 0 && each.month !== month && opening)
      along.steps[first] = { ...opening, notBefore: monthsAfter(day, each.month) };
    month = each.month;
    acts.push({ month, kind: each.act.kind, ...done });
    const isLast = ordered[acts.length]?.month !== month;
    if (
      isLast &&
      variants.verify &&
      layoutOf(each.act.kind === "add-group" ? each.act.layout.id : each.act.shape.layout.id).nominalTolerance({}) > 0
    )
      take({ kind: "verify", pool: pool.id });
    ends.push(along.steps.length);
  }
  return { acts, steps: along.steps, buys, ends };
}

export { CAREFUL };
