import { produce } from "immer";
import type { Group, Plan } from "../document/plan";
import { roomOf } from "../drives/room";
import { parityDrivesOf } from "../layouts/parityDrive";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { drivesOf } from "./find";

const wantsNames = ({ layout, options }: Group): boolean =>
  layoutOf(layout).dedicatedParity !== undefined || options?.parityDrives !== undefined;

/**
 * Names the parity drives of every group, once and for all: those that are named stay, and for a group that names none
 * it is what would be drawn of it today. A group of another layout names none. For use inside a change of the plan.
 */
export function nameParity(plan: Plan): void {
  for (const group of plan.pools.flatMap((pool) => pool.groups).filter(wantsNames)) {
    const { dedicatedParity } = layoutOf(group.layout);
    const old = group.options?.parityDrives;
    if (!dedicatedParity) {
      delete group.options?.parityDrives;
      continue;
    }
    const rules = rulesOf(plan.box.rules);
    const rooms = drivesOf(plan, group.drives).map((drive) => roomOf(drive, rules));
    const parityDrives = parityDrivesOf(rooms, dedicatedParity, old);
    if (old?.length !== parityDrives.length || parityDrives.some((id, i) => old[i] !== id))
      group.options = { ...group.options, parityDrives };
  }
}

/**
 * The plan with the parity drives of every group named. For an older file this is the migration.
 *
 * @returns the same plan where nothing was to be named
 * @example withParityNamed(planOfAnOlderFile).pools[0].groups[0].options.parityDrives // ["d4"]
 */
export const withParityNamed = (plan: Plan): Plan =>
  plan.pools.some((pool) => pool.groups.some(wantsNames)) ? produce(plan, nameParity) : plan;
