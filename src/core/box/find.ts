import { isDraft, original } from "immer";
import type { Drive, Group, Plan, Pool, Volume } from "../document/plan";

// What the steps ask of a state again and again.

/** Where each drive stands in a list that is not changed any more, by its id. */
const indexes = new WeakMap<readonly Drive[], ReadonlyMap<string, number>>();

function indexOf(drives: readonly Drive[]): ReadonlyMap<string, number> {
  const known = indexes.get(drives);
  if (known) return known;
  const index = new Map(drives.map((drive, i) => [drive.id, i]));
  indexes.set(drives, index);
  return index;
}

/** A drive of a draft: whatever is looked at there is copied, so it is looked for in what the draft was made of. */
function driveOfDraft(drives: Drive[], id: string): Drive | undefined {
  const place = indexOf(original(drives) ?? []).get(id);
  const likely = place === undefined ? undefined : drives[place];
  return likely?.id === id ? likely : drives.find((drive) => drive.id === id);
}

/** A drive of a plan by its id; of a draft, the draft of the drive. */
export function driveOf({ drives }: Plan, id: string): Drive | undefined {
  if (isDraft(drives)) return driveOfDraft(drives, id);
  const place = indexOf(drives).get(id);
  return place === undefined ? undefined : drives[place];
}

export const poolOf = (plan: Plan, id: string): Pool | undefined => plan.pools.find((pool) => pool.id === id);

export const poolOfGroup = (plan: Plan, id: string): Pool | undefined =>
  plan.pools.find((pool) => pool.groups.some((group) => group.id === id));

export const groupOf = (plan: Plan, id: string): Group | undefined =>
  poolOfGroup(plan, id)?.groups.find((group) => group.id === id);

/** The drives of these ids that there are, in the order of the ids. */
export function drivesOf(plan: Plan, ids: readonly string[]): Drive[] {
  // Asked more often than anything else: without a list for each drive.
  const found: Drive[] = [];
  for (const id of ids) {
    const drive = driveOf(plan, id);
    if (drive) found.push(drive);
  }
  return found;
}

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
