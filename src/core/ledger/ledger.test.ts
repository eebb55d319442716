import fc from "fast-check";
import { usableOf } from "../bands/contents";
import { GiB } from "../bytes/bytes";
import { nominalBytes } from "../bytes/nominalBytes";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { anyBytes, anyDrives, anyLayout, anyRules, drivesOfTB, testDrive } from "../testing/arbitraries";
import { fileSystemShare } from "./fileSystem";
import { LEDGER_CAUSES, ledgerOf, poolReserve, USABLE_CAUSES } from "./ledger";
import { numbered } from "../testing/anySteps";
import { boxWith } from "../testing/boxWith";
import { poolsAt } from "../walk/poolsAt";
import { walkPlan } from "../walk/walkPlan";
import { volumesOf } from "./volumes";

const anyShares = fc.record({
  keeps: fc.record({
    poolReserveShare: fc.constantFrom(0, 1 / 32, 0.005),
    poolReserveMaxBytes: fc.constantFrom(null, 128 * GiB, 1e15),
  }),
  volumes: fc.array(
    fc.record({
      id: fc.string(),
      name: fc.string(),
      bytes: anyBytes,
      fileSystem: fc.constantFrom("ext4" as const, "xfs" as const, "btrfs" as const, "none" as const),
      usedBytes: anyBytes,
      headroomShare: fc.constantFrom(0, 0.2, 0.9),
      reservedShare: fc.constantFrom(0, 0.1, 0.9),
    }),
    { maxLength: 3 },
  ),
});

test(
  "the ledger of any drives, layout, rules and spares sums to the drives' bytes exactly, in order, with no " +
    "negative entry",
  () => {
    fc.assert(
      fc.property(
        anyLayout,
        anyDrives(4, 12),
        anyDrives(0, 2),
        anyRules,
        anyShares,
        (layout, drives, spares, rules, shares) => {
          const rooms = drives.map((drive) => roomOf(drive, rules));
          const bands = layout.layOut(rooms, { arrayFormat: rules.arrayFormat });
          const entries = ledgerOf(
            [{ rooms, bands, allocationUnit: layout.allocationUnit }],
            spares.map((drive) => roomOf({ ...drive, id: `s${drive.id}` }, rules)),
            shares,
          );
          expect(entries.reduce((sum, entry) => sum + entry.bytes, 0)).toBe(
            [...drives, ...spares].reduce((sum, drive) => sum + drive.bytes, 0),
          );
          expect(entries.every((entry) => Number.isSafeInteger(entry.bytes) && entry.bytes >= 0)).toBe(true);
          const order = entries.map((entry) => LEDGER_CAUSES.indexOf(entry.cause));
          expect(order).toEqual([...order].sort((a, b) => a - b));
          expect(
            entries.filter((entry) => USABLE_CAUSES.has(entry.cause)).reduce((sum, entry) => sum + entry.bytes, 0),
          ).toBe(usableOf(bands) - poolReserve(usableOf(bands), shares.keeps));
          expect(entries.at(-1)?.cause).toBe("left");
        },
      ),
      { numRuns: 500 },
    );
  },
);

test("a mirror of 4 and 8 TB leaves 4 TB of the larger drive idle, by name", () => {
  const rules = rulesOf({ set: "classic-raid" });
  const rooms = drivesOfTB(4, 8).map((drive) => roomOf(drive, rules));
  const entries = ledgerOf([{ rooms, bands: layoutOf("raid1").layOut(rooms, { arrayFormat: "plain" }) }], []);
  expect(entries).toEqual([
    { cause: "rounding", bytes: 876_544 + 352_256, drives: ["d1", "d2"] },
    { cause: "idle", bytes: 4_000_776_716_288, drives: ["d2"] },
    { cause: "copies", bytes: 4_000_786_153_472, drives: ["d1", "d2"] },
    { cause: "unassigned", bytes: 4_000_786_153_472, drives: ["d1", "d2"] },
    { cause: "left", bytes: 0, drives: ["d1", "d2"] },
  ]);
});

test("a spare counts whole, and a reserve larger than the drive takes all of it", () => {
  const rules = rulesOf({ set: "hybrid-box" });
  const tiny = roomOf(testDrive("d1", 5e9), rules);
  expect(tiny).toMatchObject({ systemReserve: 5e9, between: 0, length: 0 });
  expect(ledgerOf([], [roomOf(testDrive("d2", nominalBytes(4000)), rules)])).toEqual([
    { cause: "spare", bytes: nominalBytes(4000), drives: ["d2"] },
    { cause: "left", bytes: 0, drives: [] },
  ]);
});

describe("file systems, against what real ones reported straight after making them", () => {
  // Size in TB; structures of ext4 and XFS in per cent; XFS in use at once in GB.
  test.each([
    [0.5, 1.8, 0.05, 3.5],
    [1, 1.69, 0.05, 7.0],
    [2, 1.63, 0.05, 14.0],
    [4, 1.6, 0.05, 27.9],
    [6, 0.81, 0.04, 41.9],
    [8, 0.8, 0.03, 55.8],
    [12, 0.8, 0.02, 83.7],
  ])("%d TB", (tb, ext4, xfs, used) => {
    const bytes = tb * 1e12;
    const four = fileSystemShare("ext4", bytes);
    expect(Math.abs((four.structures / bytes) * 100 - ext4)).toBeLessThan(0.03);
    expect(four.rootReserve).toBe(bytes * 0.05);
    const structures = fileSystemShare("xfs", bytes).structures;
    expect(Math.abs(structures - (bytes * xfs) / 100 - used * 1e9) / bytes).toBeLessThan(0.0001);
  });
  test("ext4 has steps at 4 and 16 TiB, where less is taken", () => {
    const TiB = 2 ** 40;
    for (const edge of [4 * TiB, 16 * TiB])
      expect(fileSystemShare("ext4", edge).structures).toBeLessThan(fileSystemShare("ext4", edge - 1).structures * 0.6);
  });
  test("use eats into the head-room before anything is missing", () => {
    const [volume] = volumesOf(1000, [
      { id: "v", name: "", bytes: 1000, fileSystem: "none", usedBytes: 900, headroomShare: 0.2 },
    ]).volumes;
    expect(volume).toMatchObject({ used: 900, headroom: 100, left: 0 });
  });
});

test("a volume that has grown and whose file system has not is filled only as far as that reaches", () => {
  const volume = { id: "v1", name: "V", fileSystem: "ext4" as const, usedBytes: 1e12, headroomShare: 0 };
  const grown = volumesOf(9e12, [{ ...volume, bytes: 8e12, fileSystemBytes: 4e12 }]).volumes[0]!;
  const before = volumesOf(9e12, [{ ...volume, bytes: 4e12 }]).volumes[0]!;
  expect(grown).toEqual({ ...before, bytes: 8e12, notGrown: 4e12 });
  expect(grown.left).toBe(before.left);
  // A pool that is too small for the volume comes first.
  expect(volumesOf(3e12, [{ ...volume, bytes: 8e12, fileSystemBytes: 4e12 }]).volumes[0]!.notGrown).toBe(0);
  const pool = walkPlan(
    numbered(boxWith("classic-raid", "raid5", [4, 4, 4], [], { volumes: [{ ...volume, bytes: 4e12 }] }), [
      { kind: "grow-volume", pool: "p1", volume: "v1" },
    ]),
  ).moments.at(-1)!;
  const [said] = poolsAt(pool, "TB");
  expect(said!.ledger.find(({ cause }) => cause === "not-grown")?.bytes).toBe(said!.usableBytes - 4e12);
});

test("a pool reserve of 1/32, at most 128 GiB: 125 GB of 4 TB, and 137 438 953 472 B of 16 TB", () => {
  const keeps = { poolReserveShare: 1 / 32, poolReserveMaxBytes: 128 * GiB };
  expect(poolReserve(4e12, keeps)).toBe(125e9);
  expect(poolReserve(16e12, keeps)).toBe(137_438_953_472);
  expect(poolReserve(16e12, { ...keeps, poolReserveMaxBytes: null })).toBe(500e9);
});

test("a volume of 1 TB that keeps a fifth for snapshots: its file system and its head-room are shares of the rest", () => {
  const volume = { id: "v1", name: "", bytes: 1e12, fileSystem: "ext4" as const, headroomShare: 0.5 };
  const [kept] = volumesOf(1e12, [{ ...volume, reservedShare: 0.2 }]).volumes;
  const [smaller] = volumesOf(1e12, [{ ...volume, bytes: 8e11 }]).volumes;
  expect(kept).toEqual({ ...smaller, bytes: 1e12, reserved: 2e11 });
  const shares = {
    keeps: { poolReserveShare: 0, poolReserveMaxBytes: null },
    volumes: [{ ...volume, reservedShare: 0.2 }],
  };
  const rooms = drivesOfTB(1, 1).map((drive) => roomOf(drive, rulesOf({ set: "classic-raid" })));
  const bands = layoutOf("raid1").layOut(rooms, { arrayFormat: "plain" });
  expect(ledgerOf([{ rooms, bands }], [], shares)).toContainEqual({
    cause: "volume-reserve",
    bytes: 2e11,
    drives: ["d1", "d2"],
  });
});
