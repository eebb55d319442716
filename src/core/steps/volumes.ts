import { formatBytes, formatExactBytes } from "../bytes/formatBytes";
import { hoursFor } from "../time/hours";
import { RESHAPE_SHARE } from "../time/rates";
import { fileSystemCapacity, changed, drivesOf, largestVolume, poolOf, slowestRate } from "./box";
import { against, noCost, type StepModule } from "./stepModule";
import type { Plan, Volume } from "../document/plan";

const volumeOf = (plan: Plan, pool: string, id: string): Volume | undefined => poolOf(plan, pool)?.volumes.find((volume) => volume.id === id);
const missing = against("block", "no-such-volume", "The volume is not there at this moment.");

/** A volume made larger, to a size or to all that its pool has; its file system stays as it was until it is grown too. */
export const growVolume: StepModule<"grow-volume"> = {
  kind: "grow-volume",
  name: "Grow a volume",
  check: ({ plan }, step, { rules, family }) => {
    const pool = poolOf(plan, step.pool);
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!pool || !volume) return [missing];
    const most = largestVolume(plan, pool, volume.id, rules);
    if (step.bytes !== undefined && step.bytes > most) {
      const over = step.bytes - most;
      return [against("block", "more-than-the-pool-has", `${formatBytes(step.bytes, family)} is ${over < 1e9 ? formatExactBytes(over) : formatBytes(over, family)} more than the pool can give: sizes are rounded down, never up. At most ${formatExactBytes(most)}.`, [], { label: `Use the largest size accepted, ${formatBytes(most, family)}`, command: { kind: "edit-step", step: step.id, changes: { bytes: most } } })];
    }
    if (step.bytes !== undefined && step.bytes < volume.bytes) return [against("block", "not-larger", `The volume has ${formatBytes(volume.bytes, family)} already; that is a shrinking.`)];
    return (step.bytes ?? most) <= volume.bytes ? [against("note", "nothing-to-grow", "The pool has nothing more for this volume at this moment.")] : [];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const pool = poolOf(plan, step.pool);
      const volume = volumeOf(plan, step.pool, step.volume);
      if (!pool || !volume) return;
      const bytes = Math.max(volume.bytes, step.bytes ?? largestVolume(plan, pool, volume.id, rules));
      if (bytes > volume.bytes && volume.fileSystem !== "none") volume.fileSystemBytes = volume.fileSystemBytes ?? volume.bytes;
      volume.bytes = bytes;
    }),
  cost: () => noCost({}),
  say: ({ plan }, step, { family }) => ({ does: `The volume ${volumeOf(plan, step.pool, step.volume)?.name ?? ""} grows to ${step.bytes === undefined ? "all that the pool has" : formatBytes(step.bytes, family)}.`, why: "A pool that has grown gives nothing to its volumes by itself." }),
};

/** The file system grown to the whole of its volume: only then folders see the space. */
export const growFileSystem: StepModule<"grow-file-system"> = {
  kind: "grow-file-system",
  name: "Grow the file system",
  check: ({ plan }, step) => {
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!volume) return [missing];
    if (volume.fileSystem === "none") return [against("note", "no-file-system", "The volume has no file system.")];
    return volume.fileSystemBytes === undefined ? [against("note", "nothing-to-grow", "The file system fills its volume already at this moment.")] : [];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const volume = volumeOf(plan, step.pool, step.volume);
      if (volume) delete volume.fileSystemBytes;
    }),
  cost: () => noCost({}),
  say: ({ plan }, step) => ({ does: `The file system of ${volumeOf(plan, step.pool, step.volume)?.name ?? "the volume"} grows to the whole volume.`, why: "Only now folders see the new space." }),
};

/** A volume made smaller with its file system, where the box can; also by a hair, so that a slightly smaller drive fits. */
export const shrinkVolume: StepModule<"shrink-volume"> = {
  kind: "shrink-volume",
  name: "Shrink a volume",
  mayLower: true,
  check: ({ plan }, step, { rules, family }) => {
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!volume) return [missing];
    if (!rules.shrinkVolumes) return [against("block", "no-shrinking", "By its rules your box cannot make a volume smaller.")];
    if (volume.fileSystem === "xfs") return [against("block", "xfs-does-not-shrink", "XFS cannot be made smaller. Copy the data away and make the volume anew.")];
    if (step.bytes >= volume.bytes) return [against("block", "not-smaller", `The volume has ${formatBytes(volume.bytes, family)}; that is no shrinking.`)];
    const capacity = fileSystemCapacity({ ...volume, bytes: step.bytes, fileSystemBytes: step.bytes });
    return capacity < (volume.usedBytes ?? 0) ? [against("block", "does-not-fit", `${formatBytes(volume.usedBytes ?? 0, family)} are stored, and only ${formatBytes(capacity, family)} would be left for them.`)] : [];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const volume = volumeOf(plan, step.pool, step.volume);
      if (!volume) return;
      volume.bytes = step.bytes;
      delete volume.fileSystemBytes;
    }),
  cost: ({ plan }, _after, step) => {
    const pool = poolOf(plan, step.pool);
    const volume = volumeOf(plan, step.pool, step.volume);
    const moved = Math.min(volume?.usedBytes ?? volume?.bytes ?? 0, (volume?.bytes ?? 0) - step.bytes);
    return noCost({ hours: hoursFor(Math.max(moved, 3.6e10), slowestRate(drivesOf(plan, pool?.groups.flatMap((group) => group.drives) ?? [])) * RESHAPE_SHARE), online: "offline", undoable: true });
  },
  say: ({ plan }, step, { family }) => ({ does: `The volume ${volumeOf(plan, step.pool, step.volume)?.name ?? ""} shrinks to ${formatBytes(step.bytes, family)}, its file system first.`, why: "What follows needs the room." }),
};
