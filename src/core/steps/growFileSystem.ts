import { changed } from "../box/state";
import { against, besideFilling, noCost, type StepModule } from "./stepModule";
import { missingVolume, volumeOf } from "./volumeOf";

/** The file system grown to the whole of its volume: only then folders see the space. */
export const growFileSystem: StepModule<"grow-file-system"> = {
  kind: "grow-file-system",
  name: "Grow the file system",
  boxWork: () => null,
  tells: ({ pool, volume }, names) => [`Grow the file system of ${names.volume(pool, volume)} to the whole volume.`],
  handles: () => [],
  mayRunBeside: besideFilling,
  label: () => growFileSystem.name,
  whileDegraded: "warn",
  menu: {
    under: "pool",
    offers: (pool) =>
      pool.volumes
        .filter((volume) => volume.fileSystem !== "none")
        .map((volume) => ({
          label: `Grow the file system of ${volume.name}`,
          steps: [{ kind: "grow-file-system", pool: pool.id, volume: volume.id }],
        })),
  },
  check: ({ plan }, step) => {
    const volume = volumeOf(plan, step.pool, step.volume);
    if (!volume) return [missingVolume];
    if (volume.fileSystem === "none") return [against("note", "no-file-system", "The volume has no file system.")];
    return volume.fileSystemBytes === undefined
      ? [against("note", "nothing-to-grow", "The file system fills its volume already at this moment.")]
      : [];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      const volume = volumeOf(plan, step.pool, step.volume);
      if (volume) delete volume.fileSystemBytes;
    }),
  cost: () => noCost({}),
  say: ({ plan }, step) => ({
    does:
      `The file system of ${volumeOf(plan, step.pool, step.volume)?.name ?? "the volume"} grows to the whole ` +
      "volume.",
    why: "Only now your files can use the new space.",
  }),
};
