import { GiB, MiB, TiB } from "../bytes/bytes";
import type { FileSystem } from "../document/plan";
import { fileSystemShare } from "./fileSystem";

/** Measured straight after making the file systems: the share of the device that its structures take, in per cent. */
test.each<[FileSystem, number, number]>([
  ["ext4", 0.5e12, 1.8],
  ["ext4", 1e12, 1.69],
  ["ext4", 2e12, 1.63],
  ["ext4", 4e12, 1.6],
  ["ext4", 6e12, 0.81],
  ["ext4", 8e12, 0.8],
  ["ext4", 12e12, 0.8],
  ["xfs", 0.5e12, 0.75],
  ["xfs", 1e12, 0.75],
  ["xfs", 4e12, 0.75],
  ["xfs", 8e12, 0.73],
  ["xfs", 12e12, 0.72],
])("%s on %d B: its structures take %d %%", (fileSystem, bytes, percent) => {
  expect((100 * fileSystemShare(fileSystem, bytes).structures) / bytes).toBeCloseTo(percent, 1);
});

test("ext4 keeps five per cent for root, the others nothing", () => {
  expect(fileSystemShare("ext4", 4e12).rootReserve).toBe(2e11);
  for (const other of ["xfs", "btrfs", "none"] as const) expect(fileSystemShare(other, 4e12).rootReserve).toBe(0);
  expect(fileSystemShare("none", 4e12)).toEqual({ structures: 0, rootReserve: 0 });
});

test("Btrfs: 2.2 GB that are not for data, and half a per cent", () => {
  expect(fileSystemShare("btrfs", 1e12).structures).toBe(2.2e9 + 5e9);
});

test("the density of ext4's inodes falls at 4 and at 16 TiB; its journal grows with it up to 1 GiB", () => {
  const inodes = (bytes: number, spacing: number) => bytes * (256 / spacing + 8192 / (128 * MiB));
  const at = (bytes: number) => fileSystemShare("ext4", bytes).structures;
  expect(at(4 * TiB - GiB)).toBe(Math.round(inodes(4 * TiB - GiB, 16384) + GiB));
  expect(at(4 * TiB)).toBe(Math.round(inodes(4 * TiB, 32768) + GiB));
  expect(at(16 * TiB - GiB)).toBe(Math.round(inodes(16 * TiB - GiB, 32768) + GiB));
  expect(at(16 * TiB)).toBe(Math.round(inodes(16 * TiB, 65536) + GiB));
  for (const [bytes, journal] of [
    [128 * GiB, 1024],
    [128 * GiB - MiB, 512],
    [32 * GiB, 512],
    [32 * GiB - MiB, 256],
    [16 * GiB, 256],
    [16 * GiB - MiB, 64],
    [GiB, 64],
    [GiB - MiB, 16],
  ] as const)
    expect(at(bytes)).toBe(Math.round(inodes(bytes, 16384) + journal * MiB));
});

test("a file system never takes more than there is", () => {
  for (const fileSystem of ["ext4", "xfs", "btrfs"] as const)
    for (const bytes of [0, 1, MiB, 17 * MiB]) {
      const { structures, rootReserve } = fileSystemShare(fileSystem, bytes);
      expect(structures + rootReserve).toBeLessThanOrEqual(bytes);
    }
});
