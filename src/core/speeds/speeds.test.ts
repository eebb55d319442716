import type { LayoutId } from "../document/plan";
import { sequentialRate } from "../drives/rates";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
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
  const [used] = rebuildsOf(bandsOf("raid1", 4, 4), drivesOfTB(4, 4), { rebuilding: "used-only" }, 0.25);
  const [whole] = rebuildsOf(bandsOf("raid1", 4, 4), drivesOfTB(4, 4), { rebuilding: "whole-drive" }, 0.25);
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

test.each<[LayoutId, number, number]>([
  ["raid0", 4, 4],
  ["raid1", 4, 1],
  ["raid10", 4, 2],
  ["raid5", 3, 3],
  ["raid6", 2, 2],
  ["parity-drive-1", 1, 0.4],
])("%s of 4 drives: reads %d and writes %d times one drive, until the network is full", (id, read, write) => {
  const drives = drivesOfTB(4, 4, 4, 4);
  expect(speedOf(bandsOf(id, 4, 4, 4, 4), drives, 1e12)).toEqual({
    read: read * 150e6,
    write: write * 150e6,
    readLimit: "drives",
    writeLimit: "drives",
  });
  expect(speedOf(bandsOf(id, 4, 4, 4, 4), drives, 117e6)).toMatchObject({ read: 117e6, readLimit: "network" });
});
