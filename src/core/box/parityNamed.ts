import { produce } from "immer";
import type { Group, Plan } from "../document/plan";
import { roomOf } from "../drives/room";
import { parityDrivesOf } from "../layouts/parityDrive";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { drivesOf } from "./find";

const wantsNames = ({ layout, options }: Group): boolean =>
  layoutOf(layout).dedicatedParity !== undefined || options?.parityDrives !== undefined;

/** The parity drives that a group is to name; undefined where it is to name none. */
function namesFor(plan: Plan, { layout, drives, options }: Group): string[] | undefined {
  const { dedicatedParity } = layoutOf(layout);
  if (!dedicatedParity) return undefined;
  const rules = rulesOf(plan.box.rules);
  const rooms = drivesOf(plan, drives).map((drive) => roomOf(drive, rules));
  return parityDrivesOf(rooms, dedicatedParity, options?.parityDrives);
}

const isNamed = ({ options }: Group, names: readonly string[] | undefined): boolean => {
  const old = options?.parityDrives;
  return old?.length === names?.length && !names?.some((id, i) => old?.[i] !== id);
};

const groupsWithNames = (plan: Plan): Group[] => plan.pools.flatMap((pool) => pool.groups).filter(wantsNames);

/**
 * Names the parity drives of every group, once and for all: those that are named stay, and for a group that names none
 * it is what would be drawn of it today. A group of another layout names none. For use inside a change of the plan.
 */
export function nameParity(plan: Plan): void {
  for (const group of groupsWithNames(plan)) {
    const parityDrives = namesFor(plan, group);
    if (isNamed(group, parityDrives)) continue;
    if (parityDrives) group.options = { ...group.options, parityDrives };
    else delete group.options?.parityDrives;
  }
}

/**
 * The plan with the parity drives of every group named. For an older file this is the migration.
 *
 * @returns the same plan where nothing was to be named
 * @example withParityNamed(planOfAnOlderFile).pools[0].groups[0].options.parityDrives // ["d4"]
 */
export const withParityNamed = (plan: Plan): Plan =>
  // Looked at as it is before it is drafted: reading a draft costs ten times as much, and this comes after every step.
  groupsWithNames(plan).every((group) => isNamed(group, namesFor(plan, group))) ? plan : produce(plan, nameParity);
