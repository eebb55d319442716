import { MiB, type Bytes } from "../bytes/bytes";
import type { Pool, Volume } from "../document/plan";
import type { PrintedVolume } from "./printedBox";

/** What a file system may keep for itself: 3 % of its volume, 128 MiB where that is more. */
const ownOf = (bytes: Bytes): Bytes => Math.max(0.03 * bytes, 128 * MiB);

/** Whether a file system is clearly smaller than what it is on: it has not been grown. */
const isNotGrown = ({ bytes, fileSystemBytes }: PrintedVolume): boolean =>
  fileSystemBytes !== null && bytes - fileSystemBytes > ownOf(bytes);

/** The volume of the plan that this is: of its name, else of its size, else the one at its place. */
function volumeInPlan(old: readonly Volume[], printed: PrintedVolume, place: number): Volume | undefined {
  return (
    old.find(({ name }) => name === printed.name) ?? old.find(({ bytes }) => bytes === printed.bytes) ?? old[place]
  );
}

/**
 * Volumes of a pool as they are printed; those of the plan keep their ids, names and what they keep free.
 *
 * @param newId gives the id of a volume that the plan does not have
 */
export function volumesOfPool(printed: readonly PrintedVolume[], old: Pool | undefined, newId: () => string): Volume[] {
  const left = [...(old?.volumes ?? [])];
  return printed.map((volume, i): Volume => {
    const known = volumeInPlan(left, volume, i);
    if (known) left.splice(left.indexOf(known), 1);
    const id = known?.id ?? newId();
    const { usedBytes: _used, fileSystemBytes: _reach, ...keeps } = known ?? { usedBytes: 0, fileSystemBytes: 0 };
    return {
      ...keeps,
      id,
      name: known?.name ?? volume.name.slice(0, 120),
      bytes: volume.bytes,
      fileSystem: volume.fileSystem,
      ...(volume.usedBytes === null ? {} : { usedBytes: Math.min(volume.usedBytes, volume.bytes) }),
      ...(isNotGrown(volume) && volume.fileSystemBytes !== null ? { fileSystemBytes: volume.fileSystemBytes } : {}),
    };
  });
}
