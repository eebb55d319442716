import type { Band } from "../bands/band";
import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, Group, GroupOptions, KeptArray, LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import { usableAtMost } from "../layouts/atMost";
import { endOfKept, keptArrays } from "../layouts/keptArrays";
import { layOutGroup } from "../layouts/layOutGroup";
import type { Layout } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { sequentialRate } from "../drives/rates";
import { fullIn, type Instance } from "./instance";

/** Drives that nothing tells apart: of one size, and to be out by one month. */
export interface Kind {
  index: number;
  bytes: Bytes;
  /** Of its room. */
  length: Bytes;
  due: number;
  /** Bytes a second, as a drive of that size does. */
  rate: number;
}

/** A group as it could be: its layout and the kinds of its drives, the smallest first. */
export interface Shape {
  index: number;
  layout: Layout;
  options: GroupOptions;
  kinds: readonly Kind[];
  /** What it holds at most; what its arrays leave of it is worked out only where that matters. */
  most: Bytes;
  exactly: Bytes | null;
  tolerance: number;
  /** What its arrays keep, where boxes are made step by step. */
  kept?: readonly KeptArray[];
}

/** The pool as it could be. */
export interface BoxThen {
  index: number;
  groups: readonly Shape[];
  drives: number;
  /** The first month in which it does not suffice; `months` where it always does. */
  until: number;
}

/** All boxes that are come across, each made once. */
export interface Boxes {
  kindOf: (bytes: Bytes, due: number) => Kind;
  /** A group of drives of some kinds; `from` is the group that it was until now, where it was one. */
  shapeOf: (layout: Layout, options: GroupOptions, kinds: readonly Kind[], from?: Shape) => Shape;
  boxOf: (groups: readonly Shape[]) => BoxThen;
  start: BoxThen;
  /** What the groups of a box hold together, to the byte. */
  dataOf: (box: BoxThen) => Bytes;
  /** How many different ones there are. */
  count: () => number;
  /** Whether a group holds what its drives leave it as they come, instead of what it would hold if made at once. */
  stepwise: boolean;
}

/** By how much the short formula may be above what the arrays really leave: their metadata and rounding. */
const SLACK = 0.002;

/** Drives of some kinds, with names that only matter here. */
const drivesOfKinds = (kinds: readonly Kind[]): Drive[] =>
  kinds.map(({ bytes }, i) => ({ id: `k${i}`, bytes }) as Drive);

/** One array over whole drives is claimed whenever it could be larger. */
function claimedKept(layout: Layout, kept: readonly KeptArray[] | undefined): readonly KeptArray[] | undefined {
  const [array] = kept ?? [];
  return array && kept?.length === 1 && !layout.cutsAtSizes ? [{ ...array, used: Number.MAX_SAFE_INTEGER }] : kept;
}

/** The bands of a group, with what its arrays keep. */
function bandsOf({ layout, options, kinds }: Shape, kept: readonly KeptArray[] | undefined, rules: BoxRules): Band[] {
  const claimed = layout.keepsArrays ? claimedKept(layout, kept) : undefined;
  return layOutGroup(
    { layout: layout.id, options, ...(claimed ? { kept: [...claimed] } : {}) },
    drivesOfKinds(kinds),
    rules,
  );
}

const bySizeAndMonth = (a: Kind, b: Kind): number => a.bytes - b.bytes || a.due - b.due;

/** The heights at which a hybrid is cut as it is now, the lowest first. */
export const edgesOf = ({ groups }: Pick<Instance, "groups">): Bytes[] => {
  const [first] = groups;
  return first && layoutOf(first.group.layout).cutsAtSizes ? (first.group.kept ?? []).map(endOfKept) : [];
};

/** What groups hold, and what their arrays keep. */
interface Holding {
  most: (shape: Pick<Shape, "layout" | "options" | "kinds">) => Bytes | null;
  exactly: (shape: Shape) => Bytes;
  /** What the arrays of a group keep once it is changed: those that it has, as they are. */
  keptFrom: (shape: Shape) => readonly KeptArray[];
  /** The month in which groups are full together. */
  fullIn: (groups: readonly Shape[]) => number;
}

function holdingOf(instance: Instance, stepwise: boolean): Holding {
  const { rules, groups } = instance;
  const keeps = new Map<Shape, readonly KeptArray[]>();
  const own = new Map<LayoutId, Group>(groups.map(({ group }) => [group.layout, group]));
  const edges = edgesOf(instance);
  const keptOf = ({ layout, kept }: Shape) => (stepwise ? kept : (own.get(layout.id) ?? groups[0]?.group)?.kept);
  const exactly = (shape: Shape): Bytes => (shape.exactly ??= usableOf(bandsOf(shape, keptOf(shape), rules)));
  return {
    exactly,
    most: ({ layout, options, kinds }) =>
      usableAtMost(
        layout,
        options,
        kinds.map(({ length }) => length),
        layout.cutsAtSizes ? edges : [],
      ),
    keptFrom(shape) {
      const known = keeps.get(shape);
      if (known) return known;
      const rooms = drivesOfKinds(shape.kinds).map((drive) => roomOf(drive, rules));
      const kept = keptArrays(bandsOf(shape, shape.kept, rules), rooms, rules.arrayFormat, [...(shape.kept ?? [])]);
      keeps.set(shape, kept);
      return kept;
    },
    fullIn(shapes) {
      let most = 0;
      for (const shape of shapes) most += shape.most;
      const month = fullIn(instance, most);
      // Only where metadata can matter to the month are the bands laid out.
      if (!stepwise && month === fullIn(instance, most * (1 - SLACK))) return month;
      return fullIn(
        instance,
        shapes.reduce((sum, shape) => sum + exactly(shape), 0),
      );
    },
  };
}

/** The first month in which a box of some groups does not suffice. */
function untilOf({ months, tolerance }: Instance, groups: readonly Shape[], full: number): number {
  const survives = Math.min(...groups.map((shape) => shape.tolerance));
  const weak = tolerance.findIndex((wanted) => wanted > survives);
  const dues = groups.flatMap((shape) => shape.kinds.map(({ due }) => due));
  return Math.min(full, ...dues, weak < 0 ? months : weak, months);
}

/**
 * Makes the boxes of a search. A group holds what one holds that is made at once of its drives, with the bands that it
 * has now standing: what it really holds, reached drive by drive, is no more.
 */
export function boxesOf(instance: Instance, made: "at-once" | "step-by-step" = "at-once"): Boxes {
  const stepwise = made === "step-by-step";
  const kinds = new Map<string, Kind>();
  const shapes = new Map<string, Shape>();
  const boxes = new Map<string, BoxThen>();
  const holding = holdingOf(instance, stepwise);

  const kindOf = (bytes: Bytes, due: number): Kind => {
    const key = `${bytes} ${due}`;
    const known = kinds.get(key);
    if (known) return known;
    const { length } = roomOf({ id: "", bytes }, instance.rules);
    const rate = sequentialRate({ bytes, medium: "hdd", bus: "sata" });
    const kind = { index: kinds.size, bytes, length, due, rate };
    kinds.set(key, kind);
    return kind;
  };

  function shapeOf(layout: Layout, options: GroupOptions, of: readonly Kind[], from?: Shape): Shape {
    const sorted = [...of].sort(bySizeAndMonth);
    const kept = stepwise && from && layout.cutsAtSizes ? holding.keptFrom(from) : undefined;
    const heights = kept?.map((each) => endOfKept(each)).join() ?? "";
    const key = `${layout.id} ${heights} ${sorted.map(({ index }) => index).join()}`;
    const known = shapes.get(key);
    if (known) return known;
    const shape: Shape = {
      index: shapes.size,
      layout,
      options,
      kinds: sorted,
      most: 0,
      exactly: null,
      tolerance: layout.stripe(options).copies === "all" ? sorted.length - 1 : layout.nominalTolerance(options),
      ...(kept ? { kept } : {}),
    };
    shape.most = holding.most(shape) ?? holding.exactly(shape);
    shapes.set(key, shape);
    return shape;
  }

  function boxOf(groups: readonly Shape[]): BoxThen {
    const sorted = groups.length > 1 ? [...groups].sort((a, b) => a.index - b.index) : groups;
    const key = sorted.map(({ index }) => index).join();
    const known = boxes.get(key);
    if (known) return known;
    const drives = sorted.reduce((sum, shape) => sum + shape.kinds.length, 0);
    const until = untilOf(instance, sorted, sorted.length === 0 ? 0 : holding.fullIn(sorted));
    const box: BoxThen = { index: boxes.size, groups: sorted, drives, until };
    boxes.set(key, box);
    return box;
  }

  const start = boxOf(
    instance.groups.map(({ group, drives }) => {
      const now = drives.map(({ drive, due }) => kindOf(drive.bytes, due));
      const shape = shapeOf(layoutOf(group.layout), group.options ?? {}, now);
      if (stepwise && group.kept) shape.kept = group.kept;
      return shape;
    }),
  );
  const dataOf = (box: BoxThen): Bytes => box.groups.reduce((sum, shape) => sum + holding.exactly(shape), 0);
  return { kindOf, shapeOf, boxOf, start, dataOf, count: () => boxes.size, stepwise };
}
