import type { FileSystem, LayoutId } from "@/core/document/plan";
import { usableOf } from "@/core/bands/contents";
import { roomOf } from "@/core/drives/room";
import { layoutOf } from "@/core/layouts/registry";
import { fileSystemShare } from "@/core/ledger/fileSystem";
import { rulesOf } from "@/core/rules/ruleSets";
import { fill, reported, run, whyNotHere, withDevices } from "./images";

const why = whyNotHere();
const here = why === null;
const check = here ? test : test.skip;
if (!here) console.warn(`The system tests are skipped: they need root, loop devices and the mkfs tools (${why}).`);

/** How far a prediction may be from what the system reports. */
const MOST_OFF = 0.015;
const GiB = 2 ** 30;

describe("file systems straight after making them, against the prediction", () => {
  const make: Record<Exclude<FileSystem, "none">, string[]> = {
    ext4: ["mkfs.ext4", "-q", "-F", "-E", "lazy_itable_init=1,lazy_journal_init=1,nodiscard"],
    xfs: ["mkfs.xfs", "-q", "-f", "-K"],
    btrfs: ["mkfs.btrfs", "-q", "-f", "-K"],
  };
  const cases = (["ext4", "xfs", "btrfs"] as const).flatMap((kind) =>
    [0.5, 1, 2, 4, 6, 8, 12, 16, 20, 30].map((tb) => [kind, tb] as const),
  );

  check.each(cases)("%s of %d TB", (kind, tb) => {
    const bytes = tb * 1e12;
    const { available } = withDevices([bytes], ([device], mountPoint) => {
      const [tool = "", ...args] = make[kind];
      run(tool, ...args, device!);
      // Read-only, ext4 does not begin to write its inode tables in the background.
      run("mount", ...(kind === "ext4" ? ["-o", "ro"] : []), device!, mountPoint);
      return reported(mountPoint);
    });
    const { structures, rootReserve } = fileSystemShare(kind, bytes);
    expect(Math.abs(bytes - structures - rootReserve - available) / bytes).toBeLessThanOrEqual(
      kind === "btrfs" ? MOST_OFF : 0.002,
    );
  });
});

describe("a multi-device file system on mixed drives, filled until it is full", () => {
  const profiles: [string, string, LayoutId][] = [
    ["raid1", "raid1", "copies-2"],
    ["raid1c3", "raid1c3", "copies-3"],
    ["raid5", "raid1", "hybrid-1"],
    ["raid6", "raid1c3", "hybrid-2"],
  ];
  const sets = [
    [400, 400, 800],
    [300, 600, 900, 1200],
    [200, 200, 200, 200, 1600],
    [500, 500, 1000, 1000, 1500],
  ];
  const cases = sets.flatMap((set) =>
    profiles.map(([data, metadata, layout]) => [set, data, metadata, layout] as const),
  );

  check.each(cases)("%j GiB as %s", (set, data, metadata, layout) => {
    const sizes = set.map((size) => size * GiB);
    const fitted = withDevices(sizes, (devices, mountPoint) => {
      run("mkfs.btrfs", "-q", "-f", "-K", "-d", data, "-m", metadata, ...devices);
      run("mount", devices[0]!, mountPoint);
      return fill(mountPoint, 4 * GiB);
    });
    const rules = rulesOf({ set: "classic-raid" });
    const bands = layoutOf(layout).layOut(
      sizes.map((bytes, i) => roomOf({ id: `d${i}`, bytes }, rules)),
      { arrayFormat: "plain" },
    );
    expect(Math.abs(usableOf(bands) - fitted) / usableOf(bands)).toBeLessThanOrEqual(MOST_OFF);
  });
});
