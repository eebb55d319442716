import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const run = (command: string, ...args: string[]) =>
  execFileSync(command, args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] }).trim();

/** What keeps the system tests from running here, or null when nothing does. */
export function whyNotHere(): string | null {
  try {
    if (process.getuid?.() !== 0) return "not root";
    for (const tool of ["mkfs.ext4", "mkfs.xfs", "mkfs.btrfs", "losetup", "fallocate"])
      run("sh", "-c", `command -v ${tool}`);
    run("losetup", "--find");
    withDevices([1e9], ([device], mountPoint) => {
      run("mkfs.btrfs", "-q", "-f", device!);
      run("mount", device!, mountPoint);
    });
    return null;
  } catch (error) {
    return error instanceof Error ? (error.message.split("\n")[0] ?? "unknown") : String(error);
  }
}

/** Sparse images of these sizes behind loop devices, and a place to mount them at; all are gone afterwards. */
export function withDevices<T>(sizes: readonly number[], work: (devices: string[], mountPoint: string) => T): T {
  // On a file system in memory, images may be of any size; nothing but metadata is ever written to them.
  const folder = mkdtempSync(join(tmpdir(), "cortijo-system-"));
  const mountPoint = join(folder, "mounted");
  const images = join(folder, "images");
  const devices: string[] = [];
  mkdirSync(mountPoint);
  mkdirSync(images);
  run("mount", "-t", "tmpfs", "-o", "size=6g", "tmpfs", images);
  try {
    sizes.forEach((size, i) => {
      const image = join(images, `${i}.img`);
      writeFileSync(image, "");
      truncateSync(image, size);
      devices.push(run("losetup", "--find", "--show", image));
    });
    return work(devices, mountPoint);
  } finally {
    for (const undo of [
      ["umount", mountPoint],
      ...devices.map((device) => ["losetup", "--detach", device]),
      ["umount", images],
    ]) {
      try {
        run(undo[0]!, ...undo.slice(1));
      } catch {
        // Not mounted or not attached: nothing to undo.
      }
    }
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What the system reports of a mounted file system, in bytes. */
export function reported(mountPoint: string): { total: number; free: number; available: number } {
  const [size = 0, total = 0, free = 0, available = 0] = run(
    "stat",
    "--file-system",
    "--format",
    "%S %b %f %a",
    mountPoint,
  )
    .split(" ")
    .map(Number);
  return { total: size * total, free: size * free, available: size * available };
}

/** Reserves files until the file system says that it is full. Returns the bytes that fitted. */
export function fill(mountPoint: string, step: number): number {
  let fitted = 0;
  for (let size = step, n = 0; size >= 2 ** 24;) {
    try {
      run("fallocate", "--length", String(size), join(mountPoint, `f${n}`));
      fitted += size;
      n += 1;
    } catch {
      size /= 4;
    }
  }
  return fitted;
}

export { run };
