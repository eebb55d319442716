import fc from "fast-check";
import type { FileSystem, Volume } from "../document/plan";
import { poolReserve } from "../ledger/ledger";
import { volumesOf } from "../ledger/volumes";
import { rulesOf, ruleSets } from "../rules/ruleSets";
import { boxWith } from "../testing/boxWith";
import { fiveYears as wish } from "../testing/growing";
import { dataFor } from "./sufficiency";
import { instanceOf } from "./wish";

const DAY = "2026-11-27";

test("what a pool must hold for some files is the least with which the ledger keeps all of the head-room", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...ruleSets.map(({ id }) => id)),
      fc.constantFrom<FileSystem>("none", "ext4", "xfs", "btrfs"),
      fc.integer({ min: 1e9, max: 6e13 }),
      fc.integer({ min: 0, max: 50 }),
      fc.integer({ min: 1, max: 2 ** 41 }),
      (set, fileSystem, files, percent, bytes) => {
        const rules = rulesOf({ set });
        const volume: Volume = { id: "v1", name: "V", bytes, fileSystem };
        const need = dataFor(files, { volumes: [volume] }, percent / 100, rules);
        const suffices = (data: number) => {
          const usable = data - poolReserve(data, rules);
          // Grown to whole MiB of all that is free, never smaller than it is.
          const grown = Math.max(bytes, usable - ((usable - bytes) % 2 ** 20));
          const full = { ...volume, bytes: grown, usedBytes: files, headroomShare: percent / 100 };
          const [ledger] = volumesOf(usable, [full]).volumes;
          const { used, headroom, left } = ledger!;
          return used === files && headroom >= Math.round((used + headroom + left) * (percent / 100));
        };
        expect(suffices(need)).toBe(true);
        // A file system's own share can jump by a byte where a figure is rounded.
        expect(suffices(need - 2 ** 21)).toBe(false);
      },
    ),
    { numRuns: 200 },
  );
});

test("ages become months by which drives must go, and what others take of the box is left to them", () => {
  const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [8], {}, 6);
  const drives = plan.drives.map((drive) =>
    drive.id === "d1"
      ? { ...drive, purchased: "2021-05" }
      : drive.id === "x1"
        ? { ...drive, place: { bay: 6 } }
        : drive,
  );
  const instance = instanceOf({ ...plan, drives }, { ...wish, retireAfterYears: 6, pool: "p1", bays: 9 }, DAY);
  // Six years after May 2021 is May 2027; drives of which nothing is known count as two years old.
  expect(instance.groups[0]!.drives.map(({ due }) => due)).toEqual([6, 48, 48]);
  expect(instance.bays).toBe(5);
});
