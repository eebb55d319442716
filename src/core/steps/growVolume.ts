import { largestVolume } from "../box/capacities";
import { poolOf } from "../box/find";
import { changed } from "../box/state";
import { formatBytes, formatExactBytes } from "../bytes/formatBytes";
import { against, besideFilling, noCost, type StepModule } from "./stepModule";
import { missingVolume, volumeOf } from "./volumeOf";

/**
 * A volume made larger, to a size or to all that its pool has; its file system stays as it was until it is grown too.
 */
export const growVolume: StepModule<"grow-volume"> = {
  kind: "grow-volume",
  name: "Grow a volume",
  boxWork: () => null,
  tells: ({ pool, volume, bytes }, names) => [
    bytes === undefined
      ? `Set the volume ${names.volume(pool, volume)} to the largest size that the box offers.`
      : `Set the volume ${names.volume(pool, volume)} to ${names.size(bytes)}.`,
  ],
  handles: () => [],
  mayRunBeside: besideFilling,
  asksSize: "optional",
  label: (step, { unit }) =>
    step.bytes === undefined ? "Grow the volume" : `Grow the volume to ${formatBytes(step.bytes, unit)}`,
  whileDegraded: "warn",
  menu: {
    under: "pool",
    offers: (pool) =>
      pool.volumes.map((volume) => ({
        label: `Grow ${volume.name}`,
        steps: [{ kind: "grow-volume", pool: pool.id, volume: volume.id }],
      })),
  },
  check: ({ plan }, step, { rules, family }) => {
    const pool = poolOf(plan, step.pool);
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!pool || !volume) return [missingVolume];
    const most = largestVolume(plan, pool, volume.id, rules);
    if (step.bytes !== undefined && step.bytes > most) {
      const over = step.bytes - most;
      return [
        against(
          "block",
          "more-than-the-pool-has",
          `${formatBytes(step.bytes, family)} is ` +
            `${over < 1e9 ? formatExactBytes(over) : formatBytes(over, family)} more than the pool can give: ` +
            `sizes are rounded down, never up. At most ${formatExactBytes(most)}.`,
          [],
          {
            label: `Use the largest size accepted, ${formatBytes(most, family)}`,
            command: { kind: "edit-step", step: step.id, changes: { bytes: most } },
          },
        ),
      ];
    }
    if (step.bytes !== undefined && step.bytes < volume.bytes)
      return [
        against(
          "block",
          "not-larger",
          `The volume has ${formatBytes(volume.bytes, family)} already; that is a shrinking.`,
        ),
      ];
    return (step.bytes ?? most) <= volume.bytes
      ? [against("note", "nothing-to-grow", "The pool has nothing more for this volume at this moment.")]
      : [];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const pool = poolOf(plan, step.pool);
      const volume = volumeOf(plan, step.pool, step.volume);
      if (!pool || !volume) return;
      const bytes = Math.max(volume.bytes, step.bytes ?? largestVolume(plan, pool, volume.id, rules));
      if (bytes > volume.bytes && volume.fileSystem !== "none")
        volume.fileSystemBytes = volume.fileSystemBytes ?? volume.bytes;
      volume.bytes = bytes;
    }),
  cost: () => noCost({}),
  say: ({ plan }, step, { family }) => ({
    does:
      `The volume ${volumeOf(plan, step.pool, step.volume)?.name ?? ""} grows to ` +
      (step.bytes === undefined ? "all that the pool has" : formatBytes(step.bytes, family)) +
      ".",
    why: "A pool that has grown gives nothing to its volumes by itself.",
  }),
};
