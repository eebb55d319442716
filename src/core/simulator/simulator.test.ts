import fc from "fast-check";
import type { LayoutId, Plan, Step, StepBody } from "../document/plan";
import { boxWith, withRules } from "../testing/boxWith";
import { setsOf } from "../testing/agreement";
import { capacityOfPool } from "./groups";
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

test("a pool made again in another box goes by that box's rules, whomever the step favours meanwhile", () => {
  const practice = practiceOf("raid5", [4, 4, 4], []);
  const other = {
    name: "N",
    bays: 4,
    rules: { set: "classic-raid" as const, overrides: { preference: "users" as const } },
  };
  const again = { pool: "p1", layout: "raid5" as const, drives: ["d1", "d2", "d3"], box: other };
  expect(practice.do(step({ kind: "rebuild-from-backup", ...again, preference: "rebuild" }))).toBe(true);
  expect(practice.box.rules.preference).toBe("users");
  practice.do({ ...step({ kind: "verify", pool: "p1" }), preference: "rebuild" } as Step);
  expect(practice.box.rules.preference).toBe("users");
});

test("two drives with sectors that cannot be read have them in places of their own", () => {
  const practice = practiceOf("raid5", [4, 4, 4], []);
  for (const drive of ["d1", "d2"]) befall(practice, { kind: "unreadable", drive, blocks: 9 });
  const [one, two] = practice.box.drives.map(({ unreadable }) => [...(unreadable ?? [])]);
  expect(one).not.toEqual(two);
});

describe("the truth about the data, by hand", () => {
  // Two volumes on 8 TB of RAID 5: 1.5 TB are stored on the first, 2 TB on the second.
  const volumes = [
    { id: "v1", name: "A", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1.5e12 },
    { id: "v2", name: "B", bytes: 4e12, fileSystem: "xfs" as const, usedBytes: 2e12 },
  ];
  const kept = (place: "here" | "elsewhere", keepsVersions: boolean): Plan => ({
    ...boxWith("linux-host", "raid5", [4, 4, 4], [4], { volumes }),
    dataSets: [{ id: "s1", name: "Files", volume: "v1", bytes: 1e12, worth: "precious" }],
    backups: [
      {
        id: "b1",
        name: "B",
        kind: "box",
        place,
        everyDays: 7,
        keepsVersions,
        lastVerified: "2026-11-20",
        dataSets: ["s1"],
      },
    ],
  });
  const truth = (practice: Practice) => truthOf(practice)[0]!.volumes;

  test("of each volume what is stored is read back, and no more", () => {
    const practice = Practice.of(kept("here", true), GRAIN);
    const block = 4_000_787_030_016 / 256;
    expect(truth(practice).map(({ blocks }) => blocks)).toEqual(
      [1.5e12, 2e12].map((bytes) => Math.round(bytes / block)),
    );
    expect(truth(practice).every(({ lost, backupAge }) => lost === 0 && backupAge === null)).toBe(true);
  });

  test("a fire takes the box and the backup beside it; one elsewhere is at worst a week old, and as old as the work", () => {
    const [here, elsewhere] = (["here", "elsewhere"] as const).map((place) => {
      const practice = Practice.of(kept(place, true), GRAIN);
      practice.pass(10);
      befall(practice, { kind: "fire" });
      return truth(practice);
    });
    expect(here!.every(({ lost, blocks, backupAge }) => lost === blocks && backupAge === null)).toBe(true);
    expect(elsewhere!.map(({ backupAge }) => backupAge)).toEqual([7 * 24 + 10, 7 * 24 + 10]);
  });

  test("what was deleted comes from a backup made before it; the next one without versions forgets it", () => {
    for (const [keepsVersions, age] of [
      [true, 0],
      [false, null],
    ] as const) {
      const practice = Practice.of(kept("elsewhere", keepsVersions), GRAIN);
      practice.pass(1);
      befall(practice, { kind: "deletion", volume: "v1" });
      expect(truth(practice)[0]).toMatchObject({ deleted: true, backupAge: 7 * 24 + 1 });
      expect(truth(practice)[1]).toMatchObject({ deleted: false, lost: 0 });
      practice.do(step({ kind: "back-up", pool: "p1", to: "b1" }));
      const { backupAge } = truth(practice)[0]!;
      if (age === null) expect(backupAge).toBeNull();
      else expect(backupAge).toBeLessThan(10);
    }
  });

  test("a step that is forgotten changes nothing, and is done the next time", () => {
    const practice = Practice.of(kept("here", true), GRAIN);
    const grow = step({ kind: "grow-volume", pool: "p1", volume: "v2" });
    befall(practice, { kind: "grow-forgotten" });
    expect(practice.do(grow)).toBe(false);
    expect(practice.box.pools[0]!.volumes[1]!.bytes).toBe(4e12);
    expect(practice.do(grow)).toBe(true);
    expect(practice.box.pools[0]!.volumes[1]!.bytes / 1e12).toBeCloseTo(8 - 3, 1);
  });

  test("3 × 4 TB: a drive pulled and filled at 0.6 × 150 MB/s; four times slower, four times as long", () => {
    const pulled = step({ kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" });
    const hours = (times: number) => {
      const practice = Practice.of(kept("here", true), GRAIN);
      befall(practice, { kind: "slow", drive: "x1", times });
      practice.do(pulled);
      return practice.box.hours;
    };
    expect(hours(1)).toBeCloseTo(4e12 / 90e6 / 3600, 1);
    expect(hours(4)).toBeCloseTo((4 * 4e12) / 90e6 / 3600, 0);
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

  test("filled chunk by chunk, unlike drives hold what the formula says: min(half of all, all but the largest)", () => {
    for (const sizes of [
      [4, 4, 8],
      [4, 8, 12],
      [2, 4, 6, 8],
      [4, 4, 4, 4, 12],
      [2, 2, 12],
    ]) {
      const box = boxOf("copies-2", sizes);
      const all = sizes.reduce((sum, each) => sum + each, 0);
      const formula = Math.min(all / 2, all - Math.max(...sizes));
      expect((capacityOfPool(box, box.pools[0]!) * box.block) / 1e12).toBeCloseTo(formula, 0);
    }
  });

  test("until its first fill has ended a new mirror has one copy of what has not been filled yet", () => {
    const plan = withRules(boxWith("classic-raid", "raid0", [4, 4], [4, 4]), { firstFill: "at-once" });
    const made: StepBody = {
      kind: "create-group",
      pool: "p2",
      group: "g2",
      name: "N",
      layout: "raid1",
      drives: ["x1", "x2"],
    };
    const practice = half(Practice.of(plan, GRAIN), made);
    befall(practice, { kind: "drive-dies", drive: "x1" });
    const { blocks, lost: gone } = truthOf(practice)[1]!;
    expect(gone / blocks).toBeCloseTo(0.5, 1);
    const whole = Practice.of(plan, GRAIN);
    whole.do(step(made));
    befall(whole, { kind: "drive-dies", drive: "x1" });
    expect(truthOf(whole)[1]!.lost).toBe(0);
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

describe("found by holding it against the prediction", () => {
  test("a hybrid that a lower drive has joined begins as it was left: the band stands over the others", () => {
    const plan = boxWith("classic-raid", "hybrid-2", [8, 4, 6, 3]);
    const [pool] = plan.pools;
    const kept = [{ from: 0, offset: 0, chunk: 2 ** 20, used: 4e12 }];
    const groups = pool!.groups.map((group) => ({ ...group, kept }));
    const { box } = Practice.of({ ...plan, pools: [{ ...pool!, groups }] }, GRAIN);
    const [slab, ...others] = box.pools[0]!.groups[0]!.slabs;
    expect([slab!.code, slab!.rows, slab!.members.map(({ drive }) => drive), others]).toEqual([
      "copies",
      Math.round((4e12 / 8e12) * 256),
      [0, 1, 2],
      [],
    ]);
  });

  test("chunks lie where the plan says that they do: none on a drive that joined and nothing was balanced out since", () => {
    const plan = boxWith("chunk-copies", "copies-2", [4, 4, 8], [], stored);
    const [pool] = plan.pools;
    const groups = pool!.groups.map((group) => ({ ...group, filled: { d1: 2e12, d2: 2e12, d3: 0 } }));
    const { box } = Practice.of({ ...plan, pools: [{ ...pool!, groups }] }, GRAIN);
    const { members } = box.pools[0]!.groups[0]!.chunks!;
    expect(members.map(({ taken }) => taken)).toEqual([64, 64, 0]);
    expect(members.map(({ reach }) => reach > 100)).toEqual([true, true, true]);
  });

  test("a copy that dies once all of it is copied does not take the place, and nothing is lost", () => {
    const empty = { volumes: [{ ...stored.volumes[0]!, usedBytes: 0 }] };
    const used = { rebuilding: "used-only" as const, swapping: "hot-swap" as const };
    const practice = Practice.of(withRules(boxWith("fixed-group", "raid1", [4, 4], [4], empty), used), GRAIN);
    half(practice, { kind: "replace-drive", drive: "d1", by: "x1", how: "attached" });
    befall(practice, { kind: "dies-young", drive: "x1" });
    toTheEnd(practice);
    expect([practice.done, lost(practice)]).toEqual([[], 0]);
  });

  test("a drive that is a little smaller lacks that of what a pool can use, beside what the box keeps of it", () => {
    const practice = Practice.of(boxWith("hybrid-box", "raid1", [0.4e12, 0.4e12], [0.3e12]), GRAIN);
    befall(practice, { kind: "short", drive: "x1", bytes: 0.1e12 });
    const [, , short] = practice.box.drives;
    expect(short!.blocks).toBe(Math.round(((0.2e12 - 10 * 2 ** 30) / 0.4e12) * GRAIN.blocks));
  });

  test("a parity drive is held against whole data drives, whatever is in use of them", () => {
    const plan = boxWith("scheduled-parity", "parity-drive-1", [8, 8], [6]);
    const [pool] = plan.pools;
    const groups = pool!.groups.map((group) => ({ ...group, options: { parityDrives: ["d1"] }, reach: { d2: 4e12 } }));
    const practice = Practice.of({ ...plan, pools: [{ ...pool!, groups }] }, GRAIN);
    expect(practice.begin(step({ kind: "change-parity-drive", group: "g1", drive: "d1", by: "x1" }))).toBe(false);
    expect(practice.said.at(-1)?.why).toBe("The drive is smaller than a data drive.");
  });

  test("the largest drive, onto which the others are mirrored, is found by what a pool can use of it, to the MiB", () => {
    const plan = boxWith("linux-host", "mirror-onto-one", [4e12, 2e12, 4e12 + 2 ** 21]);
    const { box } = Practice.of(plan, GRAIN);
    expect(box.pools[0]!.groups[0]!.slabs.map(({ members }) => members.map(({ drive }) => drive))).toEqual([[0, 2]]);
  });
});
