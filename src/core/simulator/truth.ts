import type { Practice } from "./practice";
import { readBack } from "./readBack";
import type { SimBackup, SimPool, SimVolume } from "./simulatedBox";

/** What became of what is stored on a volume. */
export interface VolumeTruth {
  volume: string;
  /** Blocks that are stored, and how many of them cannot be had from the pool, or are wrong. */
  blocks: number;
  lost: number;
  /** Whether it was deleted by mistake. */
  deleted: boolean;
  /** Where something is lost: how many hours old the newest backup is that has it; null where none has. */
  backupAge: number | null;
}

/** What became of a pool. */
export interface PoolTruth {
  pool: string;
  /** Blocks of data that the pool holds, stored on volumes or not, and how many of them are lost. */
  blocks: number;
  lost: number;
  volumes: VolumeTruth[];
}

/** The newest backup that has what was on a volume: of what was deleted one from before, or one with versions. */
const backupOf = (
  backups: readonly SimBackup[],
  pool: string,
  volume: string,
  deleted = Infinity,
): SimBackup | undefined =>
  backups
    .filter((each) => each.pool === pool && !each.lacks?.includes(volume))
    .filter((each) => each.keepsVersions || each.hours < deleted)
    .at(-1);

function truthOfVolume(
  { box, deleted }: Practice,
  pool: SimPool,
  volume: SimVolume,
  lostOf: ReadonlyMap<number, ReadonlySet<number>>,
  isStopped: boolean,
): VolumeTruth {
  let [blocks, lost] = [0, 0];
  for (const { data, from, count } of volume.extents) {
    blocks += count;
    for (const at of lostOf.get(data) ?? []) if (at >= from && at < from + count) lost += 1;
  }
  if (isStopped) lost = blocks;
  const gone = deleted.get(volume.id);
  const backup = lost > 0 || gone !== undefined ? backupOf(box.backups, pool.id, volume.id, gone) : undefined;
  return {
    volume: volume.id,
    blocks,
    lost: gone === undefined ? lost : blocks,
    deleted: gone !== undefined,
    backupAge: backup ? box.hours - backup.hours : null,
  };
}

/**
 * The truth about the data of a practice: everything read back block by block and held against what it ought to be.
 *
 * @example truthOf(practice)[0].lost // 0
 */
export function truthOf(practice: Practice): PoolTruth[] {
  return practice.box.pools.map((pool) => {
    const { blocks, lost, lostOf } = readBack(practice.box, pool);
    // A pool that cannot be read gives nothing, though single blocks of it could be.
    const isStopped = pool.groups.some(({ id }) => practice.down.has(id));
    const volumes = pool.volumes.map((volume) => truthOfVolume(practice, pool, volume, lostOf, isStopped));
    return { pool: pool.id, blocks, lost: isStopped ? blocks : lost, volumes };
  });
}
