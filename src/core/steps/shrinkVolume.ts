import { fileSystemCapacity } from "../box/capacities";
import { drivesOf, poolOf } from "../box/find";
import { slowestRate } from "../box/passHours";
import { changed } from "../box/state";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import { formatBytes } from "../bytes/formatBytes";
import { RESHAPE_SHARE } from "../drives/rates";
import { IF_WRONG } from "../rules/ifWrong";
import { hoursFor } from "../time/hours";
import { against, noCost, type StepModule } from "./stepModule";
import { missingVolume, volumeOf } from "./volumeOf";

/**
 * A volume made smaller with its file system, where the box can; also by a hair, so that a slightly smaller drive fits.
 */
export const shrinkVolume: StepModule<"shrink-volume"> = {
  kind: "shrink-volume",
  name: "Shrink a volume",
  boxWork: () => "rewrite",
  tells: ({ pool, volume, bytes }, names) => [
    `See that nobody uses ${names.volume(pool, volume)}.`,
    `Make its file system smaller first: ${names.size(bytes)} or a little less.`,
    `Then set the volume to ${names.size(bytes)}, never to less than its file system.`,
  ],
  handles: () => [],
  asksSize: "required",
  label: (step, { unit }) => `Shrink a volume to ${formatBytes(step.bytes, unit)}`,
  whileDegraded: "warn",
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      (rules.shrinkVolumes ? pool.volumes : []).map((volume) => ({
        label: `Shrink ${volume.name} by a hundredth`,
        steps: [{ kind: "shrink-volume", pool: pool.id, volume: volume.id, bytes: floorTo(volume.bytes * 0.99, MiB) }],
      })),
  },
  mayLower: true,
  check: ({ plan }, step, { rules, family }) => {
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!volume) return [missingVolume];
    if (!rules.shrinkVolumes)
      return [against("block", "no-shrinking", `Your box cannot make a volume smaller. ${IF_WRONG}`)];
    if (volume.fileSystem === "xfs")
      return [
        against(
          "block",
          "xfs-does-not-shrink",
          "XFS cannot be made smaller. Copy the data away, make the volume again and copy it back.",
        ),
      ];
    if (step.bytes >= volume.bytes)
      return [
        against("block", "not-smaller", `The volume has ${formatBytes(volume.bytes, family)}; that is no shrinking.`),
      ];
    const capacity = fileSystemCapacity({ ...volume, bytes: step.bytes });
    return capacity < (volume.usedBytes ?? 0)
      ? [
          against(
            "block",
            "does-not-fit",
            `${formatBytes(volume.usedBytes ?? 0, family)} are stored, and only ` +
              `${formatBytes(capacity, family)} would be left for them.`,
          ),
        ]
      : [];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const volume = volumeOf(plan, step.pool, step.volume);
      if (!volume) return;
      // The file system goes as far as it went, or as the volume goes now: shrinking never makes it larger.
      const reached = Math.min(step.bytes, volume.fileSystemBytes ?? volume.bytes);
      volume.bytes = step.bytes;
      if (reached < step.bytes) volume.fileSystemBytes = reached;
      else delete volume.fileSystemBytes;
    }),
  cost: ({ plan }, _after, step) => {
    const pool = poolOf(plan, step.pool);
    const volume = volumeOf(plan, step.pool, step.volume);
    const moved = Math.min(volume?.usedBytes ?? volume?.bytes ?? 0, (volume?.bytes ?? 0) - step.bytes);
    return noCost({
      hours: hoursFor(
        Math.max(moved, 3.6e10),
        slowestRate(drivesOf(plan, pool?.groups.flatMap((group) => group.drives) ?? [])) * RESHAPE_SHARE,
      ),
      online: "offline",
      undoable: true,
    });
  },
  say: ({ plan }, step, { family }) => ({
    does:
      `The volume ${volumeOf(plan, step.pool, step.volume)?.name ?? ""} shrinks to ` +
      `${formatBytes(step.bytes, family)}, its file system first.`,
    why: "What follows needs the space.",
  }),
};
