import fc from "fast-check";
import { nominalBytes } from "@/core/bytes/nominalBytes";
import { MiB } from "@/core/bytes/bytes";
import { emptyPlan } from "@/core/document/emptyPlan";
import type { Group, LayoutId, Plan } from "@/core/document/plan";
import { bandsOfGroup, usableIfWhole } from "@/core/box/figures";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { floorTo } from "@/core/bytes/floorTo";
import { layoutOf } from "@/core/layouts/registry";
import { recognise } from "@/core/reading/recognise";
import { lastReading, standingOf } from "@/core/reading/standing";
import { testDrive } from "@/core/testing/arbitraries";
import { printBox, type PrintedWork } from "./printBox";
import { readBoxText } from "./readBoxText";

const AT = "2026-11-26T10:00Z";

/** Layouts that a host's own texts tell, with how many drives at least. */
const READABLE: LayoutId[] = [
  "raid1",
  "raid10",
  "raid5",
  "raid6",
  "hybrid-1",
  "hybrid-2",
  "span",
  "raid0",
  "copies-2",
  "single",
  "parity-drive-1",
];

/** Any box whose texts tell all of it: layout, drives of mixed sizes, spares, failed and missing ones, volumes. */
const anyBox = fc
  .record({
    layout: fc.constantFrom(...READABLE),
    sizes: fc.array(fc.constantFrom(1000, 2000, 3000, 4000, 8000, 12_000), { minLength: 4, maxLength: 7 }),
    reserve: fc.constantFrom(0, 0, 10 * 2 ** 30),
    spare: fc.boolean(),
    gone: fc.constantFrom(null, null, "failed" as const, "missing" as const),
    share: fc.constantFrom(1, 0.5),
    used: fc.boolean(),
  })
  .map(({ layout: id, sizes, reserve, spare, gone, share, used }): Plan => {
    const layout = layoutOf(id);
    const own = layout.kernelLevel === undefined && layout.cutsAtSizes !== true;
    const count = id === "raid10" ? 4 : sizes.length;
    const drives = sizes
      .slice(0, count)
      .map((size, i) =>
        testDrive(`CAR-${i + 1}`, nominalBytes(size), { serial: `CAR-${i + 1}`, place: { bay: i + 1 } }),
      );
    const ids = drives.map((drive) => drive.id);
    const largest = [...drives].sort((a, b) => b.bytes - a.bytes)[0]!;
    const takesSpare = spare && !own && layout.nominalTolerance({}) > 0 && layout.cutsAtSizes !== true;
    if (takesSpare) drives.push(testDrive("CAR-S", largest.bytes, { serial: "CAR-S", place: { bay: count + 1 } }));
    if (gone !== null && layout.nominalTolerance({}) > 0 && !own) {
      drives[1] = { ...drives[1]!, state: gone, ...(gone === "missing" ? { place: { shelf: true }, lastBay: 2 } : {}) };
    }
    const plan: Plan = {
      ...emptyPlan("Boat house"),
      box: {
        name: "Boat house",
        bays: 8,
        rules: {
          set: id === "parity-drive-1" ? "scheduled-parity" : "linux-host",
          ...(reserve > 0 && !own ? { overrides: { systemReserveBytes: reserve, system: "on-all-drives" } } : {}),
        },
      },
      drives,
      pools: [
        {
          id: "p1",
          name: "Logs",
          groups: [
            {
              id: "g1",
              layout: id,
              drives: ids,
              ...(id === "raid10" ? { options: { pairs: "as-named" } } : {}),
              ...(id === "parity-drive-1" ? { options: { parityDrives: [largest.id] } } : {}),
            },
          ],
          spares: takesSpare ? ["CAR-S"] : [],
          volumes: [],
        },
      ],
    };
    const usable = usableIfWhole(plan, plan.pools[0]!, rulesOfBox(plan));
    const bytes = share === 1 ? usable : floorTo(usable * share, MiB);
    const isBtrfs = layout.chunked === true;
    plan.pools[0]!.volumes =
      id === "single" || id === "parity-drive-1"
        ? []
        : [
            {
              id: "v1",
              name: "logs",
              bytes: isBtrfs ? usable : bytes,
              fileSystem: isBtrfs ? "btrfs" : "ext4",
              ...(used || isBtrfs ? { usedBytes: floorTo(bytes / 3, MiB) } : {}),
            },
          ];
    return plan;
  });

function read(plan: Plan, given: Plan | null, work: PrintedWork[] = []) {
  const texts = printBox(plan, work);
  const result = readBoxText(`${texts.blockDevices}\n${texts.arrays}`);
  if (!result.ok) throw new Error(result.message);
  return { printed: result.printed, ...recognise(result.printed, given) };
}

/** What of a plan its texts tell: a hybrid of one band is an array like any other, and who is missing is not printed. */
function told(plan: Plan) {
  const [pool] = plan.pools;
  if (!pool) throw new Error("There is no pool.");
  const stateOf = (id: string) => plan.drives.find((drive) => drive.id === id)?.state;
  const levels = (group: Group) =>
    bandsOfGroup(plan, group, rulesOfBox(plan)).map(({ scheme }) => JSON.stringify(scheme));
  return {
    groups: pool.groups.map((group) => ({
      layout: group.layout,
      bands: layoutOf(group.layout).chunked ? [] : levels(group),
      drives: group.drives.map((id) => (stateOf(id) === "missing" ? "missing" : id)),
      options: group.options ?? {},
    })),
    spares: pool.spares,
    volumes: pool.volumes.map(({ bytes, fileSystem, usedBytes, fileSystemBytes }) => ({
      bytes,
      fileSystem,
      usedBytes,
      fileSystemBytes,
    })),
    usable: usableIfWhole(plan, pool, rulesOfBox(plan)),
    failed: plan.drives.flatMap((drive) => (drive.state === "failed" ? [drive.id] : [])),
  };
}

test("what a box in any state prints is read back to that state, for every layout that can be read", () => {
  fc.assert(
    fc.property(anyBox, (plan) => {
      const { plan: made, sizes } = read(plan, null);
      const [expected, found] = [told(plan), told(made)];
      // Drives with file systems of their own have a volume each; a file system over several shows its own figure.
      if (sizes.length === 0) for (const side of [expected, found]) side.volumes = [];
      const sameLevel = (side: typeof expected) =>
        side.groups.map((group) => (group.bands.length === 1 ? { ...group, layout: null } : group));
      expect({ ...found, groups: sameLevel(found) }).toEqual({ ...expected, groups: sameLevel(expected) });
      for (const { readBytes, predictedBytes } of sizes) expect(predictedBytes).toBe(readBytes);
    }),
    { numRuns: 400 },
  );
});

test("read again with nothing changed, no box differs from its plan", () => {
  fc.assert(
    fc.property(anyBox, (plan) => {
      if (plan.pools[0]!.volumes.some((volume) => volume.fileSystem === "btrfs")) return;
      // The plan as it was read for the first time, as its owner has taken it.
      const taken = read(plan, null).plan;
      const { printed } = read(plan, null);
      const standing = standingOf(printed, taken, "TB", AT);
      expect([standing.at, standing.differences]).toEqual([0, []]);
      expect(standing.recognised.plan.pools).toEqual(taken.pools);
      expect(lastReading(standing.recognised, [], AT).arrays.every(({ group }) => group === "g1")).toBe(true);
    }),
    { numRuns: 150 },
  );
});
