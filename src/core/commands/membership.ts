import { driveInBay } from "../box/bays";
import type { Group, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import { findDrive } from "./lookUp";
import { refuse } from "./refusal";

/** Groups without drives, and pools without groups, are gone. */
export function sweep(plan: Plan): void {
  for (const pool of plan.pools) pool.groups = pool.groups.filter((group) => group.drives.length > 0);
  plan.pools = plan.pools.filter((pool) => pool.groups.length > 0);
  const left = new Set(plan.pools.map((pool) => pool.id));
  for (const pool of plan.pools) if (pool.landsFor !== undefined && !left.has(pool.landsFor)) delete pool.landsFor;
}

/** A group that is described anew by hand is one that is made so: what it kept from its changes says nothing of it. */
export function describedAnew(group: Group): void {
  delete group.kept;
  delete group.reach;
  delete group.filled;
}

/** Takes drives out of their groups and from the spares, leaving empty groups standing. */
export function takeOut(plan: Plan, drives: readonly string[]): void {
  const gone = new Set(drives);
  for (const pool of plan.pools) {
    pool.spares = pool.spares.filter((drive) => !gone.has(drive));
    if (pool.helpers) pool.helpers = pool.helpers.filter(({ drive }) => !gone.has(drive));
    for (const group of pool.groups) {
      if (group.drives.some((drive) => gone.has(drive))) describedAnew(group);
      group.drives = group.drives.filter((drive) => !gone.has(drive));
      if (group.spares) group.spares = group.spares.filter((drive) => !gone.has(drive));
    }
  }
}

/** The same, and what became empty goes too. */
export function release(plan: Plan, drives: readonly string[]): void {
  takeOut(plan, drives);
  sweep(plan);
}

/** Puts those of the drives that are on the shelf into free bays, lowest number first. */
export function seat(plan: Plan, drives: readonly string[]): void {
  for (const id of drives) {
    const drive = findDrive(plan, id);
    if (bayOf(drive) !== null) continue;
    const bay = Array.from({ length: plan.box.bays }, (_, i) => i + 1).find(
      (number) => driveInBay(plan, number) === null,
    );
    drive.place = {
      bay: bay ?? refuse("There are not enough free bays for these drives. Give the box more bays, or pull drives."),
    };
  }
}

/** Puts drives that have just been given something to do into bays, and tidies up where they came from. */
export function settleIn(plan: Plan, drives: readonly string[]): void {
  sweep(plan);
  seat(plan, drives);
}
