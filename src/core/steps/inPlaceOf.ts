import { driveOf } from "../box/find";
import { groupOfDrive } from "../box/members";
import type { BoxRules, Drive, Plan } from "../document/plan";
import { limitedRoom, roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { ownValue, withoutValue, withValue } from "../records/ownValue";
import { filledOf } from "./filledOf";
import { keepArrays } from "./keepArrays";

/** Puts a drive into a bay, empty of what was on it. For use inside `changed`. */
export function seated(drive: Drive, bay: number | null): void {
  if (bay !== null) drive.place = { bay };
  delete drive.contents;
  delete drive.toBuy;
}

/**
 * Gives a group another drive in the place of one of its own: it keeps its height, its arrays and its order, and the
 * new one is taken in as far up as the old one was. For use inside `changed`; where drives lie is the caller's.
 *
 * @param before the box before the step
 */
export function putInPlaceOf(before: Plan, plan: Plan, oldId: string, nextId: string, rules: BoxRules): void {
  const owner = groupOfDrive(plan, oldId);
  const [old, next] = [driveOf(plan, oldId), driveOf(plan, nextId)];
  if (!owner || !old || !next || oldId === nextId) return;
  const { group, pool } = owner;
  keepArrays(before, group, rules);
  const reached = limitedRoom(roomOf(old, rules), ownValue(group.reach, old.id)).between;
  if (layoutOf(group.layout).chunked) {
    const filled = filledOf(plan, pool, group, rules);
    group.filled = withValue(withoutValue(filled, old.id), next.id, ownValue(filled, old.id) ?? 0);
  }
  group.drives[group.drives.indexOf(old.id)] = next.id;
  const parity = group.options?.parityDrives;
  if (parity) group.options = { ...group.options, parityDrives: parity.map((id) => (id === old.id ? next.id : id)) };
  const others = withoutValue(group.reach, old.id);
  const reach = reached < roomOf(next, rules).between ? withValue(others, next.id, reached) : others;
  if (Object.keys(reach).length > 0) group.reach = reach;
  else delete group.reach;
}
