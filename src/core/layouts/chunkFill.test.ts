import fc from "fast-check";
import { usableOf } from "../bands/contents";
import { GiB, MiB } from "../bytes/bytes";
import { rulesOf } from "../rules/ruleSets";
import { testDrive } from "../testing/arbitraries";
import { spreadChunks } from "./chunkFill";
import { stripesThatFit } from "./chunks";
import { layOutGroup } from "./layOutGroup";
import { layoutOf } from "./registry";
import { growsByOne, takesAnyDrive, widensByDrive } from "./widens";

const gib = (...sizes: number[]) => sizes.map((size) => size * GiB);

/** Stripe by stripe, each on the drives that then have most room, as such a system does it. */
function filledStripeByStripe(rooms: number[], width: number, stripes: number): number[] {
  const left = [...rooms];
  for (let n = 0; n < stripes; n += 1) {
    const byRoom = left.map((room, i) => ({ room, i })).sort((a, b) => b.room - a.room || a.i - b.i);
    for (const { i } of byRoom.slice(0, width)) left[i]! -= 1;
  }
  return left;
}

test("chunks are spread as they are when each stripe goes to the drives with most room", () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 2, maxLength: 7 }),
      fc.integer({ min: 1, max: 3 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (rooms, width, share) => {
        fc.pre(rooms.length >= width);
        const stripes = Math.floor(stripesThatFit(rooms, width) * share);
        const spread = spreadChunks(gib(...rooms), width, stripes).map((bytes) => bytes / GiB);
        expect(spread.reduce((sum, chunks) => sum + chunks, 0)).toBe(width * stripes);
        for (const [i, chunks] of spread.entries()) expect(chunks <= Math.min(stripes, rooms[i]!)).toBe(true);
        const left = rooms.map((room, i) => room - spread[i]!).sort((a, b) => a - b);
        expect(left).toEqual(filledStripeByStripe(rooms, width, stripes).sort((a, b) => a - b));
      },
    ),
  );
});

describe("a group as it stands", () => {
  const rules = rulesOf({ set: "chunk-copies" });
  const drives = (...sizes: number[]) => sizes.map((size, i) => testDrive(`d${i + 1}`, size * GiB));
  const usable = (group: Parameters<typeof layOutGroup>[0], ...sizes: number[]) =>
    usableOf(layOutGroup(group, drives(...sizes), rules)) / GiB;

  test("what is stored stays, and new chunks go only to the free parts", () => {
    expect(usable({ layout: "copies-2" }, 20, 20, 40)).toBe(40);
    // 10 of 20 GiB are stored on each of the old drives; the third is empty.
    expect(usable({ layout: "copies-2", filled: { d1: 10 * GiB, d2: 10 * GiB } }, 20, 20, 40)).toBe(10 + 20);
    expect(usable({ layout: "copies-2", filled: { d1: 20 * GiB, d2: 20 * GiB } }, 20, 20, 40)).toBe(20);
    // More than a drive has, or parts of a chunk, is as good as what fits.
    expect(usable({ layout: "copies-2", filled: { d1: 99 * GiB, d2: 20 * GiB + 5 * MiB } }, 20, 20, 40)).toBe(20);
  });
  test("a drive is taken in as far as it reaches; what is not of chunks does not know what is filled", () => {
    expect(usable({ layout: "raid1", reach: { d2: 10 * GiB } }, 20, 40)).toBe(10);
    expect(usable({ layout: "raid1", filled: { d1: GiB } }, 20, 40)).toBe(20);
    expect(layOutGroup({ layout: "raid5" }, drives(20, 20), rules)).toEqual([]);
    expect(usable({ layout: "chunk-parity", options: { data: 3, parity: 1 } }, 10, 10, 10, 10)).toBe(30);
  });
});

describe("whether a drive more can join", () => {
  const classic = rulesOf({ set: "classic-raid" });
  const fixed = rulesOf({ set: "fixed-group" });
  const linux = rulesOf({ set: "linux-host" });
  test("by the rules of the box, whatever ties the drives together", () => {
    expect([classic, fixed].map((rules) => widensByDrive(layoutOf("raid5"), rules))).toEqual([true, false]);
    expect([classic, fixed].map((rules) => widensByDrive(layoutOf("copies-2"), rules))).toEqual([true, false]);
    expect(widensByDrive(layoutOf("mirror-onto-one"), linux)).toBe(false);
    expect([takesAnyDrive(layoutOf("single")), takesAnyDrive(layoutOf("raid1"))]).toEqual([true, false]);
  });
  test("one more gives space where it is neither a copy nor half a pair", () => {
    const grows = (id: Parameters<typeof layoutOf>[0], count: number, rules = classic) =>
      growsByOne(layoutOf(id), count, rules);
    expect([grows("raid5", 3), grows("raid5", 3, fixed)]).toEqual([true, false]);
    expect([grows("raid1", 2), grows("raid10", 4), grows("raid10", 4, linux)]).toEqual([false, false, true]);
    expect(growsByOne(layoutOf("chunk-parity"), 2, rulesOf({ set: "chunk-copies" }), { data: 4, parity: 2 })).toBe(
      false,
    );
  });
});
