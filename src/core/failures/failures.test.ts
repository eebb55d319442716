import fc from "fast-check";
import type { Band } from "../bands/band";
import { GiB } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { anyLayout, drivesOfTB, testDrive } from "../testing/arbitraries";
import { survivesForReal } from "../testing/codedBytes";
import { fateOf, type Fate } from "./fate";
import { survivalOf } from "./survival";
import { smallestFatalSet, toleranceOf } from "./tolerance";

const rules = rulesOf({ set: "classic-raid" });
const bandsOf = (id: LayoutId, drives: { id: string; bytes: number }[]): Band[] =>
  layoutOf(id).layOut(
    drives.map((drive) => roomOf(drive, rules)),
    { arrayFormat: "plain" },
  );

const nothingLost = (fate: Fate) => fate.kind === "whole" || fate.kind === "degraded";

/** A group on very small drives, so that every byte of it can be coded. */
const smallGroup = fc
  .tuple(anyLayout, fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 2, maxLength: 7 }))
  .filter(([layout, sizes]) => sizes.length >= (layout.drivesFor?.({}) ?? layout.minimumDrives))
  .map(([layout, sizes]) => {
    const drives = sizes.map((gib, i) => testDrive(`d${i + 1}`, gib * GiB));
    return { bands: bandsOf(layout.id, drives), ids: drives.map((drive) => drive.id) };
  });

/** A pool of one or two such groups on different drives. */
const smallPool = fc.array(smallGroup, { minLength: 1, maxLength: 2 }).map((groups) => {
  const rename = (g: number, id: string) => `${g}-${id}`;
  return {
    bands: groups.flatMap(({ bands }, g) =>
      bands.map((band) => ({
        ...band,
        members: band.members.map((member) => ({ ...member, drive: rename(g, member.drive) })),
      })),
    ),
    ids: groups.flatMap(({ ids }, g) => ids.map((id) => rename(g, id))),
  };
});

const subset = (ids: string[], bits: number) => new Set(ids.filter((_, i) => bits & (1 << i)));
const countBits = (bits: number) => bits.toString(2).replaceAll("0", "").length;

test("survival from bands agrees with writing, losing and recovering real coded bytes", () => {
  fc.assert(
    fc.property(smallPool, fc.nat(), ({ bands, ids }, bits) => {
      const failed = subset(ids, bits % 2 ** ids.length);
      expect(nothingLost(fateOf(bands, failed))).toBe(survivesForReal(bands, failed, GiB));
    }),
    { numRuns: 400 },
  );
});

test("the counted shares equal enumerating every set, and the tolerance the smallest fatal one", () => {
  fc.assert(
    fc.property(smallPool, ({ bands, ids }) => {
      fc.pre(bands.length > 0 && ids.length <= 11);
      const tally = new Map<number, { survived: number; sets: number }>();
      let smallest = Infinity;
      for (let bits = 1; bits < 2 ** ids.length; bits += 1) {
        const size = countBits(bits);
        const alive = nothingLost(fateOf(bands, subset(ids, bits)));
        if (!alive) smallest = Math.min(smallest, size);
        const sum = tally.get(size) ?? { survived: 0, sets: 0 };
        tally.set(size, { survived: sum.survived + (alive ? 1 : 0), sets: sum.sets + 1 });
      }
      for (const { failed, survived, sets } of survivalOf(bands, ids, 4))
        expect({ survived, sets }).toEqual(tally.get(failed));
      const fatal = smallestFatalSet(bands);
      expect(fatal).toHaveLength(smallest);
      expect(nothingLost(fateOf(bands, new Set(fatal)))).toBe(false);
      expect(toleranceOf(bands)).toBe(smallest - 1);
    }),
  );
});

test("redundancy left is how many more can be lost, whichever they are", () => {
  fc.assert(
    fc.property(smallPool, fc.nat(), ({ bands, ids }, bits) => {
      const failed = subset(ids, bits % 2 ** ids.length);
      const fate = fateOf(bands, failed);
      fc.pre(bands.length > 0);
      const others = ids.filter(
        (id) => !failed.has(id) && bands.some((band) => band.members.some((member) => member.drive === id)),
      );
      const killers = (size: number, from: number, sofar: string[]): boolean =>
        size === 0
          ? !nothingLost(fateOf(bands, new Set([...failed, ...sofar])))
          : others.some((id, i) => i >= from && killers(size - 1, i + 1, [...sofar, id]));
      if (fate.kind === "degraded" || fate.kind === "whole") {
        expect(killers(fate.redundancy, 0, [])).toBe(false);
        expect(killers(fate.redundancy + 1, 0, [])).toBe(true);
      }
    }),
    { numRuns: 60 },
  );
});

test("worked by hand: a hybrid of 4, 4, 8 and 12 TB that loses the two large ones loses both its bands", () => {
  const bands = bandsOf("hybrid-1", drivesOfTB(4, 4, 8, 12));
  expect(fateOf(bands, new Set(["d4"]))).toEqual({ kind: "degraded", redundancy: 0, missing: ["d4"] });
  expect(fateOf(bands, new Set(["d1"]))).toEqual({ kind: "degraded", redundancy: 0, missing: ["d1"] });
  expect(fateOf(bands, new Set(["d3", "d4"]))).toEqual({ kind: "lost", missing: ["d3", "d4"], bands: [0, 1] });
  expect(fateOf(bands, new Set(["d1", "d2"]))).toEqual({ kind: "lost", missing: ["d1", "d2"], bands: [0] });
  expect(fateOf(bands, new Set(["elsewhere"]))).toEqual({ kind: "whole", redundancy: 1 });
});

test("independent drives lose only what was on the failed ones", () => {
  const bands = bandsOf("parity-drive-1", drivesOfTB(4, 4, 8, 12));
  expect(fateOf(bands, new Set(["d1", "d3"]))).toMatchObject({ kind: "partly-lost", lostDrives: ["d1", "d3"] });
  expect(fateOf(bands, new Set(["d3", "d4"]))).toMatchObject({ kind: "partly-lost", lostDrives: ["d3"] });
  expect(fateOf(bands, new Set(["d4"]))).toEqual({ kind: "degraded", redundancy: 0, missing: ["d4"] });
  expect(fateOf(bandsOf("single", drivesOfTB(4, 8)), new Set(["d2"]))).toMatchObject({
    kind: "partly-lost",
    lostDrives: ["d2"],
  });
  expect(fateOf(bandsOf("span", drivesOfTB(4, 8)), new Set(["d2"])).kind).toBe("lost");
});

test("striped mirrors pair by size, or as named; with three, any two are fatal", () => {
  const of = (...tb: number[]) =>
    layoutOf("raid10").layOut(
      drivesOfTB(...tb).map((drive) => roomOf(drive, rules)),
      { arrayFormat: "plain", options: { pairs: "as-named" } },
    );
  expect(fateOf(of(4, 8, 4, 8), new Set(["d1", "d3"])).kind).toBe("degraded");
  expect(fateOf(bandsOf("raid10", drivesOfTB(4, 8, 4, 8)), new Set(["d1", "d3"])).kind).toBe("lost");
  expect(survivalOf(of(4, 4, 4), ["d1", "d2", "d3"], 2)[1]).toEqual({ failed: 2, survived: 0, sets: 3 });
});

test("nothing is there to lose without bands", () => {
  expect(fateOf([], new Set(["d1"]))).toEqual({ kind: "whole", redundancy: 0 });
  expect(smallestFatalSet([])).toEqual([]);
  expect(survivalOf([], ["d1", "d2"], 4)).toEqual([
    { failed: 1, survived: 2, sets: 2 },
    { failed: 2, survived: 1, sets: 1 },
  ]);
});

test("a band is named once, however many of its pairs are lost; one that ties drives together loses the whole pool", () => {
  const pairs = bandsOf("raid10", drivesOfTB(4, 4, 4, 4));
  expect(fateOf(pairs, new Set(["d1", "d2", "d3", "d4"]))).toMatchObject({ kind: "lost", bands: [0] });
  const apart = bandsOf("single", [testDrive("e1", 4e12), testDrive("e2", 4e12)]);
  expect(fateOf([...apart, ...pairs], new Set(["e1", "d1"]))).toMatchObject({ kind: "partly-lost", bands: [0] });
  expect(fateOf([...apart, ...pairs], new Set(["e1", "d1", "d2"]))).toMatchObject({ kind: "lost", bands: [0, 2] });
});

test("of equally tight ways to lose data the first is named; without bands nothing bears a failure", () => {
  expect(smallestFatalSet(bandsOf("hybrid-1", drivesOfTB(4, 4, 8, 12)))).toEqual(["d1", "d2"]);
  expect(smallestFatalSet(bandsOf("raid6", drivesOfTB(4, 4, 4, 4)))).toEqual(["d1", "d2", "d3"]);
  expect(toleranceOf([])).toBe(0);
});
