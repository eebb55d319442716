import fc from "fast-check";
import { contentsOf, usableOf } from "../bands/contents";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import { rulesOf } from "../rules/ruleSets";
import { anyDrives, anyLayout, anyRules, drivesOfTB } from "../testing/arbitraries";
import { CHUNK_BYTES, stripesThatFit } from "./chunks";
import { layoutOf, layouts } from "./registry";

const classic = rulesOf({ set: "classic-raid" });
const layOut = (id: LayoutId, drives: { id: string; bytes: number }[], rules = classic) =>
  layoutOf(id).layOut(
    drives.map((drive) => roomOf(drive, rules)),
    { arrayFormat: rules.arrayFormat },
  );

const sum = (s: number[]) => s.reduce((a, b) => a + b, 0);

/** The formulas of the trade, on rooms in ascending order. */
const formula: Record<LayoutId, (s: number[]) => number> = {
  raid1: (s) => s[0]!,
  raid5: (s) => (s.length - 1) * s[0]!,
  raid6: (s) => (s.length - 2) * s[0]!,
  "triple-parity": (s) => (s.length - 3) * s[0]!,
  "hybrid-1": (s) => sum(s) - s.at(-1)!,
  "hybrid-2": (s) => sum(s) - s.at(-1)! - s.at(-2)!,
  raid10: (s) => (s.length * s[0]!) / 2,
  "mirror-onto-one": (s) => Math.min(sum(s) - s.at(-1)!, s.at(-1)!),
  raid0: (s) => s.length * s[0]!,
  single: sum,
  span: sum,
  "parity-drive-1": (s) => sum(s) - s.at(-1)!,
  "parity-drive-2": (s) => sum(s) - s.at(-1)! - s.at(-2)!,
  "copies-2": (s) => Math.min(sum(s) / 2, sum(s) - s.at(-1)!),
  "copies-3": (s) => highestFill(s, 3),
  "chunk-parity": (s) => 2 * highestFill(s, 3),
};

/** The largest T with Σ min(sᵢ, T) ≥ width · T, exactly: on some stretch between sizes, j drives lie below T. */
function highestFill(s: number[], width: number): number {
  const candidates = s.map((_, j) => (j < width ? sum(s.slice(0, s.length - j)) / (width - j) : 0));
  return Math.max(...candidates.filter((t) => sum(s.map((each) => Math.min(each, t))) >= width * t * (1 - 1e-12)));
}

const CHUNKED = new Set<LayoutId>(["copies-2", "copies-3", "chunk-parity"]);

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
    expect(layOut("hybrid-1", drivesOfTB(4, 4, 8, 12)).map((band) => [band.scheme.kind, band.members.length])).toEqual([
      ["parity", 4],
      ["mirror", 2],
    ]);
  });
  test("a mirror of 4 and 8 TB holds 4 TB", () => expect(usableOf(layOut("raid1", drivesOfTB(4, 8)))).toBe(four));
  test("hybrid of three with two to fail: three copies", () => {
    expect(layOut("hybrid-2", drivesOfTB(4, 4, 8)).map((band) => [band.scheme.kind, band.members.length])).toEqual([
      ["mirror", 3],
    ]);
  });
});

describe("the kernel's RAID driver, to the byte", () => {
  const linux = rulesOf({ set: "linux-host" });
  test("3 × 4 TB single parity", () =>
    expect(usableOf(layOut("raid5", drivesOfTB(4, 4, 4), linux))).toBe(8_001_302_822_912));
  test("single parity of 3 × 1200 MiB after small members: 2396 MiB", () => {
    const drives = [1200, 1200, 1200].map((mib, i) => ({ id: `d${i}`, bytes: mib * MiB }));
    expect(usableOf(layOut("raid5", drives, linux))).toBe(2396 * MiB);
  });
  test("3 × 400 MiB: 796 MiB", () => {
    expect(
      usableOf(
        layOut(
          "raid5",
          [400, 400, 400].map((mib, i) => ({ id: `d${i}`, bytes: mib * MiB })),
          linux,
        ),
      ),
    ).toBe(796 * MiB);
  });
  test.each([
    [128 * 1024, 129],
    [4_000_000, 129],
    [64 * 1024, 65],
    [120 * 1024, 65],
  ])("%i MiB members keep %i MiB before the data", (mib, metadata) => {
    expect(
      layOut(
        "raid6",
        [1, 2, 3, 4].map((i) => ({ id: `d${i}`, bytes: mib * MiB })),
        linux,
      )[0]!.metadata,
    ).toBe(metadata * MiB);
  });
});

describe("more of the kernel's driver: unequal drives, odd counts, spans", () => {
  const linux = rulesOf({ set: "linux-host" });
  const mib = (...sizes: number[]) => sizes.map((size, i) => ({ id: `d${i}`, bytes: size * MiB }));
  test.each<[LayoutId, number[], number]>([
    ["raid0", [400, 800, 1200], 2394],
    ["raid10", [800, 800, 800], 1197],
    ["raid10", [800, 800, 800, 800, 800], 1995],
    ["raid5", [400, 400], 398],
    ["raid6", [400, 400, 400, 400], 796],
    ["span", [400, 800, 1200], 2397],
  ])("%s of %j MiB: %i MiB", (id, sizes, usable) =>
    expect(usableOf(layOut(id, mib(...sizes), linux))).toBe(usable * MiB),
  );
});

describe("chunks", () => {
  /** Chunk by chunk onto the drives with most room, as a box does it. */
  const bruteForce = (chunks: number[], width: number) => {
    const left = [...chunks];
    let stripes = 0;
    for (;;) {
      const most = left
        .map((room, i) => ({ room, i }))
        .sort((a, b) => b.room - a.room || a.i - b.i)
        .slice(0, width);
      if (most.length < width || most.some(({ room }) => room === 0)) return stripes;
      most.forEach(({ i }) => (left[i]! -= 1));
      stripes += 1;
    }
  };
  test("equal chunk-by-chunk placement within one chunk per drive", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 2, max: 6 }),
        (chunks, width) => {
          fc.pre(chunks.length >= width);
          const [ours, theirs] = [stripesThatFit(chunks, width), bruteForce(chunks, width)];
          expect(ours).toBeGreaterThanOrEqual(theirs);
          expect((ours - theirs) * width).toBeLessThanOrEqual(chunks.length);
        },
      ),
      { numRuns: 500 },
    );
  });
  test.each([
    [[40, 40, 80], 2, 80],
    [[30, 60, 90, 120], 2, 150],
    [[20, 20, 20, 20, 160], 2, 80],
    [[50, 50, 100, 100, 150], 3, 150],
    [[40, 40, 80], 3, 40],
  ])("%j chunks at width %i: %i stripes", (chunks, width, stripes) =>
    expect(stripesThatFit(chunks, width)).toBe(stripes),
  );
});

describe("laws of every layout", () => {
  test("usable space is the trade's formula on the rooms, exactly", () => {
    fc.assert(
      fc.property(anyLayout, anyDrives(3, 12), anyRules, (layout, drives, rules) => {
        fc.pre(drives.length >= layout.minimumDrives);
        const rooms = drives.map((drive) => roomOf(drive, rules));
        const bands = layout.layOut(rooms, { arrayFormat: "plain" });
        fc.pre(layout.id !== "raid10" || drives.length % 2 === 0);
        const expected = formula[layout.id](rooms.map((room) => room.length).sort((a, b) => a - b));
        if (!CHUNKED.has(layout.id)) expect(usableOf(bands)).toBe(expected);
        else {
          // Whole chunks: never more than the formula, and less by at most one chunk per drive.
          expect(usableOf(bands) % CHUNK_BYTES).toBe(0);
          expect(usableOf(bands)).toBeLessThanOrEqual(expected * (1 + 1e-12));
          expect(expected - usableOf(bands)).toBeLessThanOrEqual(drives.length * CHUNK_BYTES);
        }
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
          expect(new Set(band.members.map((member) => member.drive)).size).toBe(band.members.length);
          const { data, copies, parity, rounding } = contentsOf(band);
          expect(data + copies + parity + rounding).toBe(band.members.length * band.members[0]!.length);
        }
        for (const room of rooms) {
          let at = room.systemReserve;
          const extents = bands.flatMap((band) =>
            band.members
              .filter((each) => each.drive === room.drive)
              .map((each) => ({ from: each.offset - band.metadata, to: each.offset + each.length })),
          );
          for (const { from, to } of extents.sort((a, b) => a.from - b.from)) {
            expect(from).toBeGreaterThanOrEqual(at);
            at = to;
          }
          expect(at).toBeLessThanOrEqual(room.systemReserve + room.between);
        }
      }),
    );
  });

  test("adding a drive never lowers a hybrid's usable space", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("hybrid-1" as const, "hybrid-2" as const),
        anyDrives(4, 12),
        anyRules,
        (id, drives, rules) => {
          const plain = { ...rules, arrayFormat: "plain" as const };
          expect(usableOf(layOut(id, drives, plain))).toBeGreaterThanOrEqual(
            usableOf(layOut(id, drives.slice(1), plain)),
          );
        },
      ),
    );
  });

  test("the tolerance is what the name promises", () => {
    const promised: Record<LayoutId, (n: number) => number> = {
      raid1: (n) => n - 1,
      raid5: () => 1,
      raid6: () => 2,
      "triple-parity": () => 3,
      "hybrid-1": () => 1,
      "hybrid-2": () => 2,
      raid10: () => 1,
      "mirror-onto-one": () => 1,
      raid0: () => 0,
      single: () => 0,
      span: () => 0,
      "parity-drive-1": () => 1,
      "parity-drive-2": () => 2,
      "copies-2": () => 1,
      "copies-3": () => 2,
      "chunk-parity": () => 1,
    };
    fc.assert(
      fc.property(
        anyLayout,
        fc.array(fc.constantFrom(1, 2, 4, 8, 12), { minLength: 5, maxLength: 12 }),
        (layout, sizes) => {
          expect(toleranceOf(layOut(layout.id, drivesOfTB(...sizes)))).toBe(promised[layout.id](sizes.length));
        },
      ),
    );
  });

  test.each(layouts.map((layout) => [layout.id, layout]))(
    "%s of too few drives is the caller's mistake",
    (_, layout) => {
      expect(() => layout.layOut([], { arrayFormat: "plain" })).toThrow(RangeError);
    },
  );
});
