import type { DataSet, Plan, Volume } from "../document/plan";

/** Data sets whose volume or drive is gone go with it, and backups forget what is no more. */
export function sweepData(plan: Plan): void {
  const volumes = new Set(plan.pools.flatMap((pool) => pool.volumes.map((volume) => volume.id)));
  const drives = new Set(plan.drives.map((drive) => drive.id));
  const stays = ({ volume, drive }: DataSet) => (drive === undefined ? volumes.has(volume ?? "") : drives.has(drive));
  if (plan.dataSets?.some((set) => !stays(set))) plan.dataSets = plan.dataSets.filter(stays);
  if (plan.dataSets?.length === 0) delete plan.dataSets;
  const sets = new Set(plan.dataSets?.map((set) => set.id));
  for (const backup of plan.backups ?? []) {
    if (backup.dataSets.some((set) => !sets.has(set))) backup.dataSets = backup.dataSets.filter((set) => sets.has(set));
    if (backup.drive !== undefined && !drives.has(backup.drive)) delete backup.drive;
  }
}

/** Changes data sets, and what is used of their volumes by as much: whatever else the volumes hold stays as it is. */
export function holdingOthers(plan: Plan, change: () => void): void {
  const volumes = plan.pools.flatMap((pool) => pool.volumes);
  const sumOn = (volume: Volume) =>
    (plan.dataSets ?? []).filter((set) => set.volume === volume.id).reduce((sum, set) => sum + set.bytes, 0);
  const before = volumes.map(sumOn);
  change();
  volumes.forEach((volume, i) => {
    const after = sumOn(volume);
    if (after !== before[i]) volume.usedBytes = after + Math.max(0, (volume.usedBytes ?? 0) - (before[i] ?? 0));
  });
}
