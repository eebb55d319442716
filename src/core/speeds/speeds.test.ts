import type { LayoutId } from "../document/plan";
import { sequentialRate } from "../drives/rates";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { firstFillOf } from "./firstFill";
import { rebuildsOf } from "./rebuild";
import { speedOf } from "./speed";

const rules = rulesOf({ set: "classic-raid" });
const bandsOf = (id: LayoutId, ...tb: number[]) =>
  layoutOf(id).layOut(
    drivesOfTB(...tb).map((drive) => roomOf(drive, rules)),
    { arrayFormat: "plain" },
  );

test("rebuild of one of 3 × 4 TB by hand: 4 000 786 153 472 B at 0.6 × 150 MB/s", () => {
  const [rebuild] = rebuildsOf(bandsOf("raid5", 4, 4, 4), drivesOfTB(4, 4, 4), rules, 1);
  expect(rebuild).toMatchObject({ writes: 4_000_786_153_472, reads: 4_000_786_153_472 });
  expect(rebuild!.hours!.expected).toBeCloseTo(12.348, 2);
  expect(rebuild!.hours!.low).toBeCloseTo(12.348 * 0.65, 2);
  expect(rebuild!.hours!.high).toBeCloseTo(12.348 * 1.6, 2);
  expect(rebuild!.selfTest.expected).toBeCloseTo(4_000_787_030_016 / 105e6 / 3600, 6);
});

test("a hybrid's large drive takes part in both bands and waits for the slowest", () => {
  const [, , , large] = rebuildsOf(bandsOf("hybrid-1", 4, 4, 8, 12), drivesOfTB(4, 4, 8, 12), rules, 1);
  expect(large!.writes).toBeGreaterThan(8e12);
  expect(large!.hours!.expected).toBeCloseTo(large!.writes / 90e6 / 3600, 3);
});

test("only what is used, where the box does so; nothing to rebuild without redundancy", () => {
  const [used] = rebuildsOf(bandsOf("raid1", 4, 4), drivesOfTB(4, 4), { ...rules, rebuilding: "used-only" }, 0.25);
  const [whole] = rebuildsOf(bandsOf("raid1", 4, 4), drivesOfTB(4, 4), { ...rules, rebuilding: "whole-drive" }, 0.25);
  expect(used!.hours!.expected).toBeCloseTo(whole!.hours!.expected / 4, 3);
  expect(rebuildsOf(bandsOf("raid0", 4, 4), drivesOfTB(4, 4), rules, 1)[0]!.hours).toBeNull();
});

test.each([
  [1, 130e6],
  [2, 130e6],
  [3, 150e6],
  [8, 150e6],
  [10, 190e6],
  [20, 190e6],
])("a hard disk of %i TB: %i B/s", (tb, rate) => expect(sequentialRate(drivesOfTB(tb)[0]!)).toBe(rate));

test.each<[LayoutId, number, number, number]>([
  ["raid0", 4, 4, 4],
  ["raid1", 4, 1, 1],
  ["raid10", 4, 2, 2],
  ["raid5", 3, 3, 4 / 4],
  ["raid6", 2, 2, 4 / 6],
  ["parity-drive-1", 1, 0.4, 0.4],
])("%s of 4 drives: reads %d, writes %d and small writes %d times one drive", (id, read, write, smallWrites) => {
  const drives = drivesOfTB(4, 4, 4, 4);
  expect(speedOf(bandsOf(id, 4, 4, 4, 4), drives, 1e12, rules)).toEqual({
    read: read * 150e6,
    write: write * 150e6,
    smallWrites,
    readLimit: "drives",
    writeLimit: "drives",
  });
  expect(speedOf(bandsOf(id, 4, 4, 4, 4), drives, 117e6, rules)).toMatchObject({ read: 117e6, readLimit: "network" });
});

describe("the owner's preference and the processor", () => {
  const hoursOf = (more: Partial<typeof rules>, id: LayoutId = "raid5") =>
    rebuildsOf(bandsOf(id, 4, 4, 4), drivesOfTB(4, 4, 4), { ...rules, ...more }, 1)[0]!.hours!.expected;
  const bytes = 4_000_786_153_472;

  test.each([
    [{}, 90e6],
    [{ preference: "rebuild" }, 126e6],
    [{ preference: "users" }, 36e6],
    [{ parityRateLimit: 40e6 }, 40e6],
    [{ parityRateLimit: 40e6, preference: "rebuild" }, 40e6],
    [{ parityRateLimit: 40e6, preference: "users" }, 36e6],
  ] as const)("4 TB of RAID 5 with %j: rebuilt at %d B/s", (more, rate) =>
    expect(hoursOf(more)).toBeCloseTo(bytes / rate / 3600, 4),
  );

  test("nothing goes faster than a drive, and no parity is worked out for a mirror", () => {
    expect(hoursOf({ preference: "rebuild" }, "parity-drive-1")).toBeCloseTo(bytes / 150e6 / 3600, 2);
    expect(hoursOf({ parityRateLimit: 40e6 }, "raid1")).toBeCloseTo(bytes / 90e6 / 3600, 4);
  });

  test("only the parity bands of a hybrid wait for the processor: 4, 4, 8, 8 TB, 8 TB rebuilt", () => {
    const bands = bandsOf("hybrid-1", 4, 4, 8, 8);
    const [, , , large] = rebuildsOf(bands, drivesOfTB(4, 4, 8, 8), { ...rules, parityRateLimit: 40e6 }, 1);
    const [below, above] = bands.map(({ members }) => members[0]!.length);
    expect(large!.hours!.expected).toBeCloseTo((below! / 40e6 + above! / 90e6) / 3600, 4);
    const fill = firstFillOf(layoutOf("hybrid-1"), bands, drivesOfTB(4, 4, 8, 8), { ...rules, parityRateLimit: 40e6 });
    expect(fill!.hours.expected).toBeCloseTo(large!.hours!.expected, 4);
  });

  test("parity reads and writes wait for it as well; striped mirrors do not", () => {
    const drives = drivesOfTB(4, 4, 4, 4);
    const slow = { parityRateLimit: 40e6 };
    const limit = "processor";
    expect(speedOf(bandsOf("raid6", 4, 4, 4, 4), drives, 117e6, slow)).toEqual({
      read: 40e6,
      write: 40e6,
      smallWrites: 4 / 6,
      readLimit: limit,
      writeLimit: limit,
    });
    expect(speedOf(bandsOf("raid10", 4, 4, 4, 4), drives, 117e6, slow)).toMatchObject({ readLimit: "network" });
  });
});
