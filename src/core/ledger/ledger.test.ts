import fc from "fast-check";
import { usableOf } from "../bands/contents";
import { nominalBytes } from "../bytes/nominalBytes";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { anyDrives, anyLayout, anyRules, drivesOfTB, testDrive } from "../testing/arbitraries";
import { LEDGER_CAUSES, ledgerOf } from "./ledger";

test("the ledger of any drives, layout, rules and spares sums to the drives' bytes exactly, in order, with no negative entry", () => {
  fc.assert(
    fc.property(anyLayout, anyDrives(4, 12), anyDrives(0, 2), anyRules, (layout, drives, spares, rules) => {
      const rooms = drives.map((drive) => roomOf(drive, rules));
      const bands = layout.layOut(rooms, { arrayFormat: rules.arrayFormat });
      const entries = ledgerOf([{ rooms, bands }], spares.map((drive) => roomOf({ ...drive, id: `s${drive.id}` }, rules)));
      expect(entries.reduce((sum, entry) => sum + entry.bytes, 0)).toBe([...drives, ...spares].reduce((sum, drive) => sum + drive.bytes, 0));
      expect(entries.every((entry) => Number.isSafeInteger(entry.bytes) && entry.bytes >= 0)).toBe(true);
      const order = entries.map((entry) => LEDGER_CAUSES.indexOf(entry.cause));
      expect(order).toEqual([...order].sort((a, b) => a - b));
      expect(entries.at(-1)).toMatchObject({ cause: "usable", bytes: usableOf(bands) });
    }),
    { numRuns: 500 },
  );
});

test("a mirror of 4 and 8 TB leaves 4 TB of the larger drive idle, by name", () => {
  const rules = rulesOf({ set: "classic-raid" });
  const rooms = drivesOfTB(4, 8).map((drive) => roomOf(drive, rules));
  const entries = ledgerOf([{ rooms, bands: layoutOf("raid1").layOut(rooms, { arrayFormat: "plain" }) }], []);
  expect(entries).toEqual([
    { cause: "rounding", bytes: 876_544 + 352_256, drives: ["d1", "d2"] },
    { cause: "idle", bytes: 4_000_776_716_288, drives: ["d2"] },
    { cause: "copies", bytes: 4_000_786_153_472, drives: ["d1", "d2"] },
    { cause: "usable", bytes: 4_000_786_153_472, drives: ["d1", "d2"] },
  ]);
});

test("a spare counts whole, and a reserve larger than the drive takes all of it", () => {
  const rules = rulesOf({ set: "hybrid-box" });
  const tiny = roomOf(testDrive("d1", 5e9), rules);
  expect(tiny).toMatchObject({ systemReserve: 5e9, between: 0, length: 0 });
  expect(ledgerOf([], [roomOf(testDrive("d2", nominalBytes(4000)), rules)])).toEqual([
    { cause: "spare", bytes: nominalBytes(4000), drives: ["d2"] },
    { cause: "usable", bytes: 0, drives: [] },
  ]);
});
