import fc from "fast-check";
import type { LayoutId, Step, StepBody } from "../document/plan";
import { boxWith, withRules } from "../testing/boxWith";
import { setsOf } from "../testing/agreement";
import { befall } from "./mishaps";
import { Practice } from "./practice";
import { readBack } from "./readBack";
import { forkBox, type SimBox } from "./simulatedBox";
import { setUp } from "./setUp";
import { truthOf } from "./truth";

// What a real driver did when it was interrupted, and what must be noticed in a box whose blocks are not right.

const GRAIN = { blocks: 256, seed: 7 };
const stored = { volumes: [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 2e12 }] };
const hot = { replacing: "old-attached" as const, hotSpares: "shared" as const };
const practiceOf = (
  layout: LayoutId,
  sizes: number[],
  shelf: number[],
  set: "linux-host" | "classic-raid" = "linux-host",
) => Practice.of(withRules(boxWith(set, layout, sizes, shelf, stored), { ...hot, firstFill: "none" }), GRAIN);
const step = (body: StepBody): Step => ({ ...body, id: "s1" }) as Step;
const half = (practice: Practice, body: StepBody) => {
  expect(practice.begin(step(body))).toBe(true);
  practice.pass(practice.left()! / 2);
  return practice;
};
const toTheEnd = (practice: Practice) => {
  for (let left = practice.left(); left !== null; left = practice.left()) practice.pass(left);
  return practice;
};
const lost = (practice: Practice) => truthOf(practice).reduce((sum, pool) => sum + pool.lost, 0);

describe("interrupted, as it was measured", () => {
  const wider: StepBody = { kind: "widen-group", group: "g1", drives: ["x1"] };
  const level: StepBody = { kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] };

  test("a widening that is stopped by a power cut, or loses a drive, goes on where it was, with all data", () => {
    for (const [layout, sizes] of [
      ["raid5", [4, 4, 4]],
      ["raid10", [4, 4, 4, 4]],
    ] as const) {
      const cut = half(practiceOf(layout, [...sizes], [4]), wider);
      befall(cut, { kind: "power-cut" });
      expect(lost(toTheEnd(cut))).toBe(0);
      const without = half(practiceOf(layout, [...sizes], [4]), wider);
      befall(without, { kind: "drive-dies", drive: "d2" });
      expect(lost(toTheEnd(without))).toBe(0);
    }
  });

  test("a change of level that keeps the size loses what stands at its front, and nothing when it is left alone", () => {
    expect(lost(toTheEnd(half(practiceOf("raid5", [4, 4, 4], [4]), level)))).toBe(0);
    const cut = half(practiceOf("raid5", [4, 4, 4], [4]), level);
    befall(cut, { kind: "power-cut" });
    const gone = lost(toTheEnd(cut));
    expect(gone).toBeGreaterThan(0);
    // One row: of three drives two blocks of data.
    expect(gone).toBeLessThanOrEqual(2);
  });

  test("a spare takes over by itself, and is spent", () => {
    const plan = withRules(boxWith("linux-host", "raid5", [4, 4, 4], [4], { ...stored, spares: ["x1"] }), hot);
    const practice = Practice.of(plan, GRAIN);
    befall(practice, { kind: "drive-dies", drive: "d1" });
    expect(practice.said.map(({ what }) => what)).toContain("spare-took-over");
    toTheEnd(practice);
    expect(practice.box.pools[0]!.spares).toEqual([]);
    befall(practice, { kind: "drive-dies", drive: "d2" });
    expect(lost(practice)).toBe(0);
    befall(practice, { kind: "drive-dies", drive: "d3" });
    expect(lost(practice)).toBeGreaterThan(0);
  });

  test.each([
    ["attached", 0],
    ["pulled", 1],
  ] as const)("with the old drive %s, a further failure in the middle of the copy loses data: %d", (how, loses) => {
    const practice = half(practiceOf("raid5", [4, 4, 4], [4]), { kind: "replace-drive", drive: "d1", by: "x1", how });
    befall(practice, { kind: "drive-dies", drive: "d2" });
    expect(Math.sign(lost(toTheEnd(practice)))).toBe(loses);
  });

  test("while a rewrite runs any further change is refused", () => {
    const practice = half(practiceOf("raid5", [4, 4, 4], [4, 4]), wider);
    expect(practice.begin({ ...step({ kind: "claim-space", group: "g1" }), id: "s2" } as Step)).toBe(false);
    expect(practice.said.at(-1)).toMatchObject({ what: "refused", step: "s2" });
  });

  test("sectors that cannot be read are found by a check and written anew; without redundancy they are lost", () => {
    const practice = practiceOf("raid6", [4, 4, 4, 4], []);
    befall(practice, { kind: "unreadable", drive: "d1", blocks: 9 });
    practice.do(step({ kind: "verify", pool: "p1" }));
    expect(practice.box.drives[0]!.unreadable?.size).toBe(0);
    const stripe = practiceOf("raid0", [4, 4], []);
    befall(stripe, { kind: "unreadable", drive: "d1", blocks: 9 });
    expect(lost(stripe)).toBeGreaterThan(0);
  });
});

describe("what is not right is noticed", () => {
  const LAYOUTS: [LayoutId, number[], number][] = [
    ["raid1", [4, 4], 1],
    ["raid10", [4, 4, 4, 4], 1],
    ["raid5", [4, 4, 4], 1],
    ["raid6", [4, 4, 4, 4], 2],
    ["triple-parity", [4, 4, 4, 4, 4], 3],
    ["hybrid-1", [4, 4, 8, 12], 1],
    ["hybrid-2", [4, 4, 8, 12, 12], 2],
    ["parity-drive-1", [4, 8, 12], 1],
    ["parity-drive-2", [4, 8, 12, 12], 2],
    ["copies-2", [4, 8, 12], 1],
    ["copies-3", [4, 8, 8, 12], 2],
    ["chunk-parity", [4, 4, 8], 1],
    ["mirror-onto-one", [4, 4, 8], 1],
  ];
  const full = { volumes: [{ id: "v1", name: "V", bytes: 9e13, fileSystem: "xfs" as const }] };
  const boxOf = (layout: LayoutId, sizes: number[]) => setUp(boxWith("linux-host", layout, sizes, [], full), GRAIN);
  const lostOf = (box: SimBox) => readBack(box, box.pools[0]!).lost;
  const without = (box: SimBox, places: readonly number[]) => {
    const other = forkBox(box);
    for (const place of places) other.drives[place]!.state = "failed";
    return lostOf(other);
  };

  test.each(LAYOUTS)("%s of %j TB: whole with any %d gone, never with any one more", (layout, sizes, tolerance) => {
    const box = boxOf(layout, sizes);
    const places = sizes.map((_, i) => i);
    expect(lostOf(box)).toBe(0);
    for (const set of setsOf(places, tolerance)) expect(without(box, set)).toBe(0);
    expect([...setsOf(places, tolerance + 1)].some((set) => without(box, set) > 0)).toBe(true);
  });

  // In chunks, and on unlike drives, some blocks hold nothing.
  const everywhere = LAYOUTS.filter(([, sizes]) => new Set(sizes).size === 1);

  test("any two unlike blocks swapped are noticed, in data, copies and parity, once as many are gone as may be", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...everywhere),
        fc.nat(),
        fc.nat(),
        fc.nat(255),
        fc.nat(255),
        ([layout, sizes, tolerance], a, b, i, j) => {
          const box = boxOf(layout, sizes);
          const [one, other] = [box.drives[a % sizes.length]!, box.drives[b % sizes.length]!];
          const [x, y] = [one.cells[i]!, other.cells[j]!];
          one.cells[i] = y;
          other.cells[j] = x;
          const places = sizes.map((_, place) => place);
          const seen = [lostOf(box), ...[...setsOf(places, tolerance)].map((set) => without(box, set))];
          expect(Math.max(...seen) > 0).toBe(x !== y);
        },
      ),
      { numRuns: 150 },
    );
  });

  test("parity that is not written, or a stripe that is forgotten, loses data once a drive is gone", () => {
    const box = boxOf("raid5", [4, 4, 4]);
    const [slab] = box.pools[0]!.groups[0]!.slabs;
    slab!.agree = 0;
    expect(without(box, [0])).toBeGreaterThan(0);
    slab!.agree = slab!.rows;
    const forgotten = 100;
    for (const { drive, from } of slab!.members) box.drives[drive]!.cells[from + forgotten]! ^= 0x5a;
    expect(lostOf(box)).toBe(2);
  });
});
