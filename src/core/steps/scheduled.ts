import { occupied } from "../bands/occupied";
import { verifyShare } from "../bands/workShare";
import { bandsOfGroup } from "../box/figures";
import { goneIn } from "../box/gone";
import type { BoxRules, Plan, Pool } from "../document/plan";
import { nameOfDrive } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { drivesOf } from "../box/find";
import { against, noCost, type StepCost, type StepSetting } from "./stepModule";

// What the steps about scheduled parity have in common.

/** How often parity is taken to be written where nothing is said: once a day. */
export const EVERY_HOURS = 24;

/** That there is a schedule at all. */
export function notScheduled(pool: Pool | undefined, rules: BoxRules): Finding[] {
  if (!pool || hasParitySchedule(pool, rules)) return [];
  return [against("note", "written-at-once", "Your box writes parity at once; there is no schedule.")];
}

/**
 * That no update of the parity may run: a drive has failed or is missing, or is empty and being filled. The parity
 * would be worked out without it, and what was on it could never be restored.
 *
 * @param unready drives of a step that still runs, and hold nothing yet
 */
export function wouldRecordTheLoss(plan: Plan, pool: Pool | undefined, setting: StepSetting): Finding[] {
  if (!pool) return [];
  const bare = new Set([...goneIn(plan), ...(setting.unready ?? [])]);
  const ids = pool.groups
    .filter((group) => layoutOf(group.layout).dedicatedParity !== undefined)
    .flatMap((group) => group.drives.filter((id) => bare.has(id)));
  if (ids.length === 0) return [];
  const names = drivesOf(plan, ids).map((drive) => nameOfDrive(drive, setting.family));
  const message =
    `This would record the loss: the parity would be worked out without ${listOf(names)}, and what was on ` +
    `${plural(ids.length, "it", "them")} could never be restored. Restore first, then update.`;
  return [against("block", "would-record-the-loss", message, ids)];
}

/** What it takes to read all drives of a pool and compare them with its parity, or bring that up to date. */
export function costOfReadingAll(plan: Plan, pool: Pool, rules: BoxRules): StepCost {
  // Only parity drives have a parity of their own to update or check.
  const beside = pool.groups.filter(({ layout }) => layoutOf(layout).dedicatedParity !== undefined);
  if (beside.length === 0) return noCost({});
  const bands = beside.flatMap((group) => bandsOfGroup(plan, group, rules));
  const used = occupied(bands);
  return noCost({
    hours: bandHours(bands, drivesOf(plan, [...used.keys()]), verifyShare, rules),
    work: [...used].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
    online: "slower",
  });
}
