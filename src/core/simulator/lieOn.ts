import type { BoxRules, GroupOptions, KeptArray, LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import type { Code, SimBox, SimGroup, Slab } from "./simulatedBox";

// How each layout lies on drives, said plainly: what a row of blocks holds that so many of the drives reach.

/** What a row is. */
interface Row {
  code: Code;
  parity: number;
}

/** How a layout lies: in rows over the drives that reach them, or each drive by itself, or beside parity drives. */
type Lies =
  | { in: "rows"; overAll: boolean; row: (reaching: number, drives: number, zones: boolean) => Row | null }
  | { in: "single-drives"; independent: boolean }
  | { in: "beside-parity"; parity: number }
  | { in: "onto-one" }
  | { in: "chunks"; shape: (options: GroupOptions) => { k: number; copies: number; parity: number } };

const copies: Row = { code: "copies", parity: 0 };
const withParity = (parity: number): Row => ({ code: "parity", parity });
const overAll = (row: Row): Lies => ({
  in: "rows",
  overAll: true,
  row: (reaching, drives) => (reaching === drives ? row : null),
});
const hybrid = (lost: number): Lies => ({
  in: "rows",
  overAll: false,
  row: (reaching) => (reaching > lost + 1 ? withParity(lost) : reaching === lost + 1 ? copies : null),
});

const LIES: Record<LayoutId, Lies> = {
  raid1: overAll(copies),
  raid10: overAll({ code: "ring", parity: 0 }),
  "mirror-onto-one": { in: "onto-one" },
  raid5: overAll(withParity(1)),
  raid6: overAll(withParity(2)),
  "triple-parity": overAll(withParity(3)),
  "hybrid-1": hybrid(1),
  "hybrid-2": hybrid(2),
  "parity-drive-1": { in: "beside-parity", parity: 1 },
  "parity-drive-2": { in: "beside-parity", parity: 2 },
  "copies-2": { in: "chunks", shape: () => ({ k: 1, copies: 2, parity: 0 }) },
  "copies-3": { in: "chunks", shape: () => ({ k: 1, copies: 3, parity: 0 }) },
  "chunk-parity": { in: "chunks", shape: ({ data = 2, parity = 1 }) => ({ k: data, copies: 1, parity }) },
  single: { in: "single-drives", independent: true },
  span: { in: "single-drives", independent: false },
  raid0: {
    in: "rows",
    overAll: true,
    row: (reaching, drives, zones) => (zones || reaching === drives ? { code: "stripe", parity: 0 } : null),
  },
};

/** How a layout lies. */
export const liesOf = (layout: LayoutId): Lies => LIES[layout];

/** A slab without members yet; copies and parity are written with the data. */
export const bareSlab = (box: SimBox, row: Row, rows: number, independent = false): Slab => ({
  ...row,
  rows,
  top: 0,
  independent,
  members: [],
  data: box.nextData++,
  agree: rows,
  rewrite: null,
});

/** What a pool can use of a drive, in bytes. */
export const roomOn = (box: SimBox, place: number): number =>
  box.drives[place] ? roomOf(box.drives[place].is, box.rules).length : 0;

/** How far up a drive of a group is taken in, in bytes; to the block where that is not all of it. */
export function takenIn(box: SimBox, group: SimGroup, d: number): number {
  const [place, reach] = [group.drives[d] ?? -1, group.reach[d] ?? 0];
  return reach < (box.drives[place]?.blocks ?? 0) ? reach * box.block : roomOn(box, place);
}

/** From where to where rows of one kind go, in blocks of each drive. */
interface Stretch {
  from: number;
  to: number;
  /** By how much a drive may end below it and still be counted as reaching it. */
  slack: number;
}

/** The stretches above a height, cut wherever a drive ends. */
function cutAtDrives(group: SimGroup, above: number): Stretch[] {
  const cuts = [...new Set(group.reach)].filter((height) => height > above).sort((a, b) => a - b);
  return cuts.map((to, i) => ({ from: cuts[i - 1] ?? above, to, slack: 0 }));
}

/** Heights are rounded to blocks, and are sums of such. */
const ROUNDED = 2;

/** The stretches of arrays that stand as they were made, whatever their drives would allow by now. */
const asKept = ({ block }: SimBox, kept: readonly KeptArray[]): Stretch[] =>
  kept.map(({ from, offset, used }) => ({
    from: Math.round(from / block),
    to: Math.round((from + offset + used) / block),
    slack: ROUNDED,
  }));

/** Rows over the drives that reach them. */
function rowsOver(
  box: SimBox,
  group: SimGroup,
  lies: Extract<Lies, { in: "rows" }>,
  stretches: readonly Stretch[],
): Slab[] {
  const zones = box.rules.arrayFormat === "linux-raid";
  return stretches.flatMap(({ from, to, slack }) => {
    const reaching = group.drives.map((_, d) => d).filter((d) => (group.reach[d] ?? 0) >= to - slack);
    const end = Math.min(to, ...reaching.map((d) => group.reach[d] ?? 0));
    const row = lies.row(reaching.length, group.drives.length, zones);
    if (!row || end <= from) return [];
    const slab = bareSlab(box, row, end - from);
    slab.members = reaching.map((d) => ({ drive: group.drives[d] ?? 0, from, valid: slab.rows, data: null }));
    slab.top = Math.min(...reaching.map((d) => takenIn(box, group, d)));
    if (row.code === "ring") slab.members = pairedAs(box, group, slab.members);
    return [slab];
  });
}

/** Striped mirrors pair their drives as they are named, or, where the box sorts them, by size. */
function pairedAs(box: SimBox, group: SimGroup, members: Slab["members"]): Slab["members"] {
  const pairs = group.options.pairs ?? (box.rules.arrayFormat === "linux-raid" ? "as-named" : "by-size");
  return pairs === "as-named" ? members : [...members].sort((a, b) => roomOn(box, a.drive) - roomOn(box, b.drive));
}

/** The data of its own that each data drive of a group holds. */
export type Lanes = ReadonlyMap<number, number>;

/** Data drives beside parity drives: rows over those that reach them, parity on drives of its own. */
export function besideParity(box: SimBox, group: SimGroup, parity: number, lanes: Lanes): Slab[] {
  const reach = (place: number) => group.reach[group.drives.indexOf(place)] ?? 0;
  const most = Math.min(...group.parityDrives.map(reach));
  const data = group.drives.filter((place) => !group.parityDrives.includes(place));
  const cuts = [...new Set(data.map((place) => Math.min(most, reach(place))))].sort((a, b) => a - b);
  return cuts.flatMap((to, i) => {
    const from = cuts[i - 1] ?? 0;
    const slab = bareSlab(box, withParity(parity), to - from, true);
    slab.members = [...data.filter((place) => reach(place) >= to), ...group.parityDrives].map((drive) => ({
      drive,
      from,
      valid: slab.rows,
      data: lanes.get(drive) ?? null,
    }));
    return slab.rows > 0 ? [slab] : [];
  });
}

/** Each drive by itself, holding data of its own. */
export function byItself(box: SimBox, group: SimGroup, place: number, independent: boolean): Slab {
  const rows = group.reach[group.drives.indexOf(place)] ?? 0;
  const slab = bareSlab(box, { code: "stripe", parity: 0 }, rows, independent);
  slab.members = [{ drive: place, from: 0, valid: rows, data: independent ? slab.data : null }];
  return slab;
}

/** The smaller drives one above the other along the largest, each mirrored there. */
function ontoOne(box: SimBox, group: SimGroup): Slab[] {
  // By their bytes: the blocks are too coarse to tell drives of nearly the same size apart.
  const bytes = group.drives.map((_, d) => takenIn(box, group, d));
  const largest = bytes.reduce((most, each, i) => (each > (bytes[most] ?? 0) ? i : most), 0);
  let from = 0;
  return group.drives.flatMap((place, i) => {
    if (i === largest) return [];
    const rows = Math.max(0, Math.min(group.reach[i] ?? 0, (group.reach[largest] ?? 0) - from));
    const slab = bareSlab(box, copies, rows, true);
    slab.members = [
      { drive: place, from: 0, valid: rows, data: slab.data },
      { drive: group.drives[largest] ?? 0, from, valid: rows, data: slab.data },
    ];
    from += rows;
    return rows > 0 ? [slab] : [];
  });
}

/**
 * The slabs that a group has above a height, by its layout and by how far up its drives are taken in.
 *
 * @param above in blocks; 0 for a group that is made
 * @param kept arrays that stand as they were made, for a group that is there already; none for what is made now
 * @example slabsOf(box, hybridOf(4, 8, 12), 0).map(({ code }) => code) // ["parity", "copies"]
 */
export function slabsOf(box: SimBox, group: SimGroup, above: number, kept: readonly KeptArray[] = []): Slab[] {
  const lies = liesOf(group.layout);
  switch (lies.in) {
    case "rows":
      return rowsOver(box, group, lies, kept.length > 0 ? asKept(box, kept) : cutAtDrives(group, above));
    case "single-drives":
      return group.drives.map((place) => byItself(box, group, place, lies.independent));
    case "onto-one":
      return ontoOne(box, group);
    case "beside-parity": {
      const data = group.drives.filter((place) => !group.parityDrives.includes(place));
      return besideParity(box, group, lies.parity, new Map(data.map((place) => [place, box.nextData++])));
    }
    case "chunks":
      return [];
  }
}

/**
 * Which drives of a group hold nothing but parity: those that its options name, then the largest of the others, of
 * equal ones the later.
 */
export function parityDrivesOf(box: SimBox, group: SimGroup): number[] {
  const lies = liesOf(group.layout);
  if (lies.in !== "beside-parity") return [];
  const named = (group.options.parityDrives ?? [])
    .map((id) => group.drives.find((place) => box.drives[place]?.id === id) ?? -1)
    .filter((place) => place >= 0)
    .slice(0, lies.parity);
  const others = group.drives
    .map((place, i) => ({ place, i, bytes: roomOn(box, place) }))
    .filter(({ place }) => !named.includes(place))
    .sort((a, b) => b.bytes - a.bytes || b.i - a.i);
  return [...named, ...others.slice(0, lies.parity - named.length).map(({ place }) => place)];
}

/** Whether a box makes the copies or parity of a new group only after its data, and so in hours. */
export const fillsAtOnce = ({ firstFill }: Pick<BoxRules, "firstFill">): boolean => firstFill === "at-once";
