import { driveOf } from "../box/find";
import { groupOfDrive, isFree } from "../box/members";
import { changed } from "../box/state";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import { shortSize } from "../drives/nameOfDrive";
import { formatBytes } from "../bytes/formatBytes";
import { storedOnDrive } from "../data/stored";
import type { Drive, Plan, Pool } from "../document/plan";
import { fileSystemOn } from "../drives/drive";
import { RESHAPE_SHARE, sequentialRate } from "../drives/rates";
import { isSeparate } from "../layouts/isSeparate";
import { layoutOf } from "../layouts/registry";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { missingDrives, named } from "./checks";
import { against, noCost, type StepModule } from "./stepModule";

/** What is looked through at least when a file system is made smaller: its own structures, in bytes. */
const LEAST_LOOKED_THROUGH = 3.6e10;

/** The volume that a drive of a pool of separate drives has for itself: one each, in their order. */
function ownVolume(plan: Plan, drive: string): Pool["volumes"][number] | undefined {
  const owner = groupOfDrive(plan, drive);
  if (!owner || owner.pool.groups.length > 1 || owner.pool.volumes.length !== owner.group.drives.length)
    return undefined;
  return owner.pool.volumes[owner.group.drives.indexOf(drive)];
}

/** Whether a drive has a file system of its own: it holds data and is free, or it is one of separate drives. */
function hasOwn(plan: Plan, drive: Drive): boolean {
  const owner = groupOfDrive(plan, drive.id);
  return owner
    ? isSeparate(layoutOf(owner.group.layout))
    : isFree(plan, drive.id) && (drive.contents?.kind === "data" || drive.contents?.kind === "mounted");
}

/** The file system of a single drive made smaller, so that what is on it fits onto less than the whole drive. */
export const shrinkFileSystem: StepModule<"shrink-file-system"> = {
  kind: "shrink-file-system",
  name: "Shrink a drive's file system",
  boxWork: () => "rewrite",
  tells: ({ drive, bytes }, names) => [
    `See that nobody uses ${names.drive(drive)}.`,
    `Have its file system checked, then make it ${names.size(bytes)} large.`,
  ],
  handles: (step) => [step.drive],
  asksSize: "required",
  label: (step, names) =>
    `Shrink the file system of ${names.place(step.drive)} to ${formatBytes(step.bytes, names.unit)}`,
  whileDegraded: "warn",
  menu: {
    under: "drives",
    offers: ({ plan, unit }) =>
      plan.drives
        .filter((drive) => hasOwn(plan, drive))
        .map((drive) => ({
          label: `Shrink the file system of ${shortSize(drive, unit)} ${drive.serial ?? drive.label} by a hundredth`,
          steps: [{ kind: "shrink-file-system", drive: drive.id, bytes: floorTo(fileSystemOn(drive) * 0.99, MiB) }],
        })),
  },
  mayLower: true,
  check: ({ plan }, step, setting) => {
    const drive = driveOf(plan, step.drive);
    if (!drive) return missingDrives(plan, [step.drive]);
    const { family } = setting;
    const name = capital(named(plan, drive.id, setting));
    if (!hasOwn(plan, drive))
      return [
        against("block", "no-own-file-system", `${name} has no file system of its own at this moment.`, [drive.id]),
      ];
    const now = fileSystemOn(drive);
    if (step.bytes >= now)
      return [
        against(
          "block",
          "not-smaller",
          `The file system reaches as far as ${formatBytes(now, family)}; that is no shrinking.`,
          [drive.id],
        ),
      ];
    const stored = Math.max(storedOnDrive(plan, drive.id), ownVolume(plan, drive.id)?.usedBytes ?? 0);
    if (stored > step.bytes)
      return [
        against(
          "block",
          "does-not-fit",
          `${formatBytes(stored, family)} are stored on it, and only ${formatBytes(step.bytes, family)} would ` +
            "be left for them.",
          [drive.id],
        ),
      ];
    return [
      against(
        "note",
        "shrink-with-a-backup",
        "The drive is taken out of use while its file system is made smaller. Some file systems, XFS among " +
          "them, cannot be: copy the data away and back then. Have a backup.",
        [drive.id],
      ),
    ];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const drive = driveOf(plan, step.drive);
      if (!drive) return;
      const volume = ownVolume(plan, step.drive);
      drive.fileSystemBytes = step.bytes;
      if (!volume) return;
      volume.bytes = Math.min(volume.bytes, step.bytes);
      if (volume.fileSystemBytes !== undefined) volume.fileSystemBytes = Math.min(volume.fileSystemBytes, volume.bytes);
    }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    if (!drive) return noCost({});
    const cut = fileSystemOn(drive) - step.bytes;
    return noCost({
      hours: hoursFor(Math.max(cut, LEAST_LOOKED_THROUGH), sequentialRate(drive) * RESHAPE_SHARE),
      online: "offline",
    });
  },
  say: ({ plan }, step, setting) => ({
    does:
      `The file system of ${named(plan, step.drive, setting)} shrinks to ` +
      `${formatBytes(step.bytes, setting.family)}.`,
    why: "What is on it then fits onto less than the whole drive.",
  }),
};
