import fc from "fast-check";
import { contentsOf, usableOf } from "../bands/contents";
import { floorTo } from "../bytes/floorTo";
import { MiB } from "../bytes/bytes";
import { roomOf } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import { rulesOf } from "../rules/ruleSets";
import { anyDrives, anyLayout, anyRules, drivesOfTB } from "../testing/arbitraries";
import type { LayoutId } from "./layout";
import { layoutOf, layouts } from "./registry";
import schema from "../document/schema/plan-1.json";

const classic = rulesOf({ set: "classic-raid" });
const layOut = (id: LayoutId, drives: { id: string; bytes: number }[], rules = classic) =>
  layoutOf(id).layOut(drives.map((drive) => roomOf(drive, rules)), { arrayFormat: rules.arrayFormat });

/** The formulas of the trade, on rooms in ascending order. */
const formula: Record<LayoutId, (s: number[]) => number> = {
  raid1: (s) => s[0]!,
  raid5: (s) => (s.length - 1) * s[0]!,
  raid6: (s) => (s.length - 2) * s[0]!,
  "triple-parity": (s) => (s.length - 3) * s[0]!,
  "hybrid-1": (s) => s.reduce((a, b) => a + b, 0) - s.at(-1)!,
  "hybrid-2": (s) => s.reduce((a, b) => a + b, 0) - s.at(-1)! - s.at(-2)!,
};

test("the catalogue and the plan schema name the same layouts", () => {
  expect(layouts.map((layout) => layout.id)).toEqual(schema.$defs.layout.enum);
});

describe("worked by hand, on a box with no reserve", () => {
  // 4 TB is 3 815 447 MiB and 516 096 B.
  const four = 3_815_447 * MiB;
  test("3 × 4 TB single parity: 2 × 4 TB within the rounding to 1 MiB", () => {
    expect(usableOf(layOut("raid5", drivesOfTB(4, 4, 4)))).toBe(2 * four);
    expect(2 * four).toBe(8_001_572_306_944);
  });
  test("4 + 4 + 8 + 12 TB hybrid: 16 TB", () => {
    const eight = floorTo(8_001_563_222_016, MiB);
    expect(usableOf(layOut("hybrid-1", drivesOfTB(4, 4, 8, 12)))).toBe(2 * four + eight);
    expect(layOut("hybrid-1", drivesOfTB(4, 4, 8, 12)).map((band) => [band.scheme.kind, band.members.length])).toEqual([["parity", 4], ["mirror", 2]]);
  });
  test("a mirror of 4 and 8 TB holds 4 TB", () => expect(usableOf(layOut("raid1", drivesOfTB(4, 8)))).toBe(four));
  test("hybrid of three with two to fail: three copies", () => {
    expect(layOut("hybrid-2", drivesOfTB(4, 4, 8)).map((band) => [band.scheme.kind, band.members.length])).toEqual([["mirror", 3]]);
  });
});

describe("the kernel's RAID driver, to the byte", () => {
  const linux = rulesOf({ set: "linux-host" });
  test("3 × 4 TB single parity", () => expect(usableOf(layOut("raid5", drivesOfTB(4, 4, 4), linux))).toBe(8_001_302_822_912));
  test("single parity of 3 × 1200 MiB after small members: 2396 MiB", () => {
    const drives = [1200, 1200, 1200].map((mib, i) => ({ id: `d${i}`, bytes: mib * MiB }));
    expect(usableOf(layOut("raid5", drives, linux))).toBe(2396 * MiB);
  });
  test("3 × 400 MiB: 796 MiB", () => {
    expect(usableOf(layOut("raid5", [400, 400, 400].map((mib, i) => ({ id: `d${i}`, bytes: mib * MiB })), linux))).toBe(796 * MiB);
  });
  test.each([
    [128 * 1024, 129],
    [4_000_000, 129],
    [64 * 1024, 65],
    [120 * 1024, 65],
  ])("%i MiB members keep %i MiB before the data", (mib, metadata) => {
    expect(layOut("raid6", [1, 2, 3, 4].map((i) => ({ id: `d${i}`, bytes: mib * MiB })), linux)[0]!.metadata).toBe(metadata * MiB);
  });
});

describe("laws of every layout", () => {
  test("usable space is the trade's formula on the rooms, exactly", () => {
    fc.assert(
      fc.property(anyLayout, anyDrives(3, 12), anyRules, (layout, drives, rules) => {
        fc.pre(drives.length >= layout.minimumDrives);
        const rooms = drives.map((drive) => roomOf(drive, rules));
        const bands = layout.layOut(rooms, { arrayFormat: "plain" });
        expect(usableOf(bands)).toBe(formula[layout.id](rooms.map((room) => room.length).sort((a, b) => a - b)));
      }),
    );
  });

  test("bands stay inside the rooms, do not overlap, and have members of one length", () => {
    fc.assert(
      fc.property(anyLayout, anyDrives(4, 10), anyRules, (layout, drives, rules) => {
        const rooms = drives.map((drive) => roomOf(drive, rules));
        const bands = layout.layOut(rooms, { arrayFormat: rules.arrayFormat });
        for (const band of bands) {
          expect(new Set(band.members.map((member) => member.length)).size).toBe(1);
          const { data, copies, parity } = contentsOf(band);
          expect(data + copies + parity).toBe(band.members.length * band.members[0]!.length);
        }
        for (const room of rooms) {
          let at = room.systemReserve;
          for (const band of bands) {
            const member = band.members.find((each) => each.drive === room.drive);
            if (!member) continue;
            expect(member.offset - band.metadata).toBeGreaterThanOrEqual(at);
            at = member.offset + member.length;
          }
          expect(at).toBeLessThanOrEqual(room.systemReserve + room.between);
        }
      }),
    );
  });

  test("adding a drive never lowers a hybrid's usable space", () => {
    fc.assert(
      fc.property(fc.constantFrom("hybrid-1" as const, "hybrid-2" as const), anyDrives(4, 12), anyRules, (id, drives, rules) => {
        const plain = { ...rules, arrayFormat: "plain" as const };
        expect(usableOf(layOut(id, drives, plain))).toBeGreaterThanOrEqual(usableOf(layOut(id, drives.slice(1), plain)));
      }),
    );
  });

  test("the tolerance is what the name promises", () => {
    const promised: Record<LayoutId, (n: number) => number> = { raid1: (n) => n - 1, raid5: () => 1, raid6: () => 2, "triple-parity": () => 3, "hybrid-1": () => 1, "hybrid-2": () => 2 };
    fc.assert(
      fc.property(anyLayout, fc.array(fc.constantFrom(1, 2, 4, 8, 12), { minLength: 5, maxLength: 12 }), (layout, sizes) => {
        expect(toleranceOf(layOut(layout.id, drivesOfTB(...sizes)))).toBe(promised[layout.id](sizes.length));
      }),
    );
  });

  test.each(layouts.map((layout) => [layout.id, layout]))("%s of too few drives is the caller's mistake", (_, layout) => {
    expect(() => layout.layOut([], { arrayFormat: "plain" })).toThrow(RangeError);
  });
});
