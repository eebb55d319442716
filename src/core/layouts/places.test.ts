import type { Band } from "../bands/band";
import { GiB, MiB } from "../bytes/bytes";
import type { ArrayFormat, GroupOptions, LayoutId } from "../document/plan";
import { roomOf, type Room } from "../drives/room";
import { chunkCopiesOf } from "./chunks";
import { wrongCount } from "./problemsOfLayout";
import { layoutOf, layouts } from "./registry";

// Where each layout puts what, on small drives of which 10 MiB are kept by the box, by hand.

const RESERVE = 10 * MiB;
const rooms = (...mib: number[]): Room[] =>
  mib.map((each, i) =>
    roomOf(
      { id: "abcdef"[i]!, bytes: each * MiB + RESERVE },
      { systemReserveBytes: RESERVE, replacementMarginShare: 0 },
    ),
  );
/** Each band as `scheme: drive@from-to …`, in MiB above the reserve. */
const picture = (bands: readonly Band[]): string[] =>
  bands.map(({ scheme, members }) =>
    [
      `${scheme.kind}:`,
      ...members.map(({ drive, offset, length }) => {
        const from = (offset - RESERVE) / MiB;
        return `${drive}@${from}-${from + length / MiB}`;
      }),
    ].join(" "),
  );
const lay = (id: LayoutId, on: Room[], arrayFormat: ArrayFormat = "plain", options: GroupOptions = {}): string[] =>
  picture(layoutOf(id).layOut(on, { arrayFormat, options }));

test("striped mirrors pair by size, or as they are named; a Linux host does as named where nothing is said", () => {
  const on = rooms(300, 100, 300, 100);
  const order = (format: ArrayFormat, options: GroupOptions = {}) =>
    lay("raid10", on, format, options)[0]!.replace(/@\S+/g, "");
  expect(order("plain")).toBe("striped-mirrors: b d a c");
  expect(order("plain", { pairs: "as-named" })).toBe("striped-mirrors: a b c d");
  expect(order("linux-raid")).toBe("striped-mirrors: a b c d");
  expect(order("linux-raid", { pairs: "by-size" })).toBe("striped-mirrors: b d a c");
  expect(on.map((room) => room.drive).join("")).toBe("abcd");
});

test("parity drives are the largest, the later named of equal ones, or those that are named if they are large enough", () => {
  expect(lay("parity-drive-1", rooms(100, 300, 200))).toEqual([
    "dedicated-parity: a@0-100 c@0-100 b@0-100",
    "dedicated-parity: c@100-200 b@100-200",
  ]);
  expect(lay("parity-drive-1", rooms(200, 200))).toEqual(["dedicated-parity: a@0-200 b@0-200"]);
  const named = (parityDrives: string[], ...mib: number[]) =>
    lay("parity-drive-1", rooms(...mib), "plain", { parityDrives });
  expect(named(["a"], 200, 200, 100)).toEqual([
    "dedicated-parity: b@0-100 c@0-100 a@0-100",
    "dedicated-parity: b@100-200 a@100-200",
  ]);
  // Named too many, or one that is not there: the first, or the largest. Named a smaller one: no more is protected.
  expect(named(["a", "b"], 200, 200, 100)).toEqual(named(["a"], 200, 200, 100));
  expect(named(["x"], 200, 200, 100)[0]).toMatch(/ b@0-100$/);
  expect(named(["c"], 200, 200, 100)).toEqual(["dedicated-parity: a@0-100 b@0-100 c@0-100"]);
  expect(lay("parity-drive-2", rooms(100, 300, 200, 0))).toEqual(["dedicated-parity: a@0-100 b@0-100 c@0-100"]);
});

test("a span and separate drives leave out what has no room; a zoned stripe's top is a drive alone", () => {
  expect(lay("span", rooms(100, 0, 50))).toEqual(["single: a@0-100", "single: c@0-50"]);
  expect(lay("single", rooms(0, 50))).toEqual(["single: b@0-50"]);
  expect(lay("raid0", rooms(100, 50, 20), "linux-raid")).toEqual([
    "stripe: a@2-20 b@2-20 c@2-20",
    "stripe: a@20-50 b@20-50",
    "single: a@50-100",
  ]);
  expect(lay("raid0", rooms(20, 100, 100), "linux-raid")).toEqual([
    "stripe: a@2-20 b@2-20 c@2-20",
    "stripe: b@20-100 c@20-100",
  ]);
  const metadata = layoutOf("raid0")
    .layOut(rooms(100, 50), { arrayFormat: "linux-raid" })
    .map((band) => band.metadata);
  expect(metadata).toEqual([2 * MiB, 0]);
});

test("each small drive of a mirror onto one has its part of the large one, behind the others", () => {
  expect(lay("mirror-onto-one", rooms(100, 300, 150))).toEqual([
    "mirror: a@0-100 b@0-100",
    "mirror: c@0-150 b@100-250",
  ]);
  expect(lay("mirror-onto-one", rooms(100, 120, 50))).toEqual(["mirror: a@0-100 b@0-100", "mirror: c@0-20 b@100-120"]);
  // Plain partitions are mirrored: there is no array's metadata, on a Linux host neither.
  expect(lay("mirror-onto-one", rooms(100, 100, 50, 60), "linux-raid")).toEqual(["mirror: b@0-100 a@0-100"]);
});

test("hybrids cut at each size; a slice without room, or too thin for an array, is none", () => {
  expect(lay("hybrid-1", rooms(100, 200, 300))).toEqual([
    "parity: a@0-100 b@0-100 c@0-100",
    "mirror: b@100-200 c@100-200",
  ]);
  expect(lay("hybrid-1", rooms(0, 200, 200))).toEqual(["mirror: b@0-200 c@0-200"]);
  expect(lay("hybrid-2", rooms(100, 200, 200, 200))).toEqual([
    "parity: a@0-100 b@0-100 c@0-100 d@0-100",
    "mirror: b@100-200 c@100-200 d@100-200",
  ]);
  // A slice of 1 MiB on a Linux host has no room behind its metadata.
  expect(lay("hybrid-1", rooms(100, 101, 101), "linux-raid")).toEqual(["parity: a@2-100 b@2-100 c@2-100"]);
});

test("chunks wrap round from column to column, each drive at most once in a slice", () => {
  const inGiB = (id: LayoutId, ...gib: number[]) =>
    layoutOf(id)
      .layOut(rooms(...gib.map((each) => each * 1024)), { arrayFormat: "plain" })
      .map(({ members }) =>
        members.map(({ drive, offset, length }) => `${drive}@${(offset - RESERVE) / GiB}+${length / GiB}`).join(" "),
      );
  // Six chunks in two columns of three: a and the begin of b, then the rest of b and c.
  expect(inGiB("copies-2", 2, 2, 2)).toEqual(["a@0+1 b@1+1", "a@1+1 c@0+1", "b@0+1 c@1+1"]);
  expect(inGiB("copies-3", 1, 1, 1)).toEqual(["a@0+1 b@0+1 c@0+1"]);
  expect(inGiB("copies-2", 0.5, 0.5)).toEqual([]);
});

test("who can do without one of its drives, and which are spread in copies", () => {
  const canLoseOne = (drives: number) =>
    layouts
      .filter((layout) => layout.canLoseOne?.(drives))
      .map((layout) => layout.id)
      .sort();
  const free = ["chunk-parity", "copies-2", "copies-3", "parity-drive-1", "parity-drive-2", "single"];
  expect(canLoseOne(2)).toEqual(free);
  expect(canLoseOne(3)).toEqual([...free, "raid1"].sort());
  const copies = layouts.flatMap((layout) => (chunkCopiesOf(layout) > 0 ? [[layout.id, chunkCopiesOf(layout)]] : []));
  expect(copies).toEqual([
    ["copies-2", 2],
    ["copies-3", 3],
  ]);
});

test("what sets layouts apart, by the trade", () => {
  const those = (has: (layout: (typeof layouts)[number]) => boolean) =>
    layouts
      .flatMap((layout) => (has(layout) ? [layout.id] : []))
      .sort()
      .join(" ");
  const arrays = "raid1 raid10 raid5 raid6 triple-parity";
  expect(those((layout) => layout.countsSmallest === true)).toBe(arrays);
  expect(those((layout) => layout.cutsAtSizes === true)).toBe("hybrid-1 hybrid-2");
  expect(those((layout) => layout.zonedWhenUnequal === true)).toBe("raid0");
  expect(those((layout) => layout.joinsAnySize === true)).toBe("single span");
  expect(those((layout) => layout.splits === true)).toBe("hybrid-1 hybrid-2 raid1 raid5 raid6 triple-parity");
  expect(those((layout) => layout.independent === true)).toBe("mirror-onto-one parity-drive-1 parity-drive-2 single");
  expect(those((layout) => layout.rebuildsTogether === true)).toBe(
    "hybrid-2 parity-drive-1 parity-drive-2 raid6 triple-parity",
  );
  expect(those((layout) => layout.liesEndToEnd === true)).toBe("mirror-onto-one");
  expect(those((layout) => layout.levelTakes === 1)).toBe("parity-drive-2 raid5 raid6 triple-parity");
  expect(those((layout) => layout.keepsArrays === true)).toBe(`hybrid-1 hybrid-2 raid0 ${arrays}`);
  expect(layoutOf("hybrid-2").minimumDrives).toBe(3);
  expect(layoutOf("parity-drive-2").minimumDrives).toBe(3);
});

test("a wrong number of drives is told with how many are lacking", () => {
  const rules = { minimumDrives: {}, mostDrives: null, arrayFormat: "plain" } as const;
  expect(wrongCount(layoutOf("raid10"), 5, rules)).toBe("Needs an even number of drives: 1 more.");
  expect(wrongCount({ ...layoutOf("raid10"), multiple: 3 }, 7, rules)).toBe("Needs drives in multiples of 3: 2 more.");
  expect(wrongCount(layoutOf("raid10"), 5, { ...rules, arrayFormat: "linux-raid" })).toBeNull();
  expect(wrongCount(layoutOf("raid5"), 1, rules)).toMatch(/^Needs \d drives: \d more\.$/);
});
