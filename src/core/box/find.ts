import { isDraft } from "immer";
import type { Drive, Group, Plan, Pool, Volume } from "../document/plan";

// What the steps ask of a state again and again.

export const indexes = new WeakMap<readonly Drive[], ReadonlyMap<string, Drive>>();

/** A drive of a plan by its id; of a draft, the draft of the drive. */
export function driveOf(plan: Plan, id: string): Drive | undefined {
  const { drives } = plan;
  if (isDraft(drives)) return drives.find((drive) => drive.id === id);
  let index = indexes.get(drives);
  if (!index) {
    index = new Map(drives.map((drive) => [drive.id, drive]));
    indexes.set(drives, index);
  }
  return index.get(id);
}

export const poolOf = (plan: Plan, id: string): Pool | undefined => plan.pools.find((pool) => pool.id === id);

export const poolOfGroup = (plan: Plan, id: string): Pool | undefined =>
  plan.pools.find((pool) => pool.groups.some((group) => group.id === id));

export const groupOf = (plan: Plan, id: string): Group | undefined =>
  poolOfGroup(plan, id)?.groups.find((group) => group.id === id);

export const drivesOf = (plan: Plan, ids: readonly string[]): Drive[] => ids.flatMap((id) => driveOf(plan, id) ?? []);

const volumes = new WeakMap<readonly Pool[], ReadonlyMap<string, Volume>>();

/** A volume of a plan by its id; not of a draft. */
export function volumeOf({ pools }: Plan, id: string): Volume | undefined {
  let index = volumes.get(pools);
  if (!index) {
    index = new Map(pools.flatMap((pool) => pool.volumes.map((volume) => [volume.id, volume])));
    volumes.set(pools, index);
  }
  return index.get(id);
}
