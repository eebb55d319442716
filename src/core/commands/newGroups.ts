import type { LayoutId, Plan, Pool } from "../document/plan";
import { freeId } from "../records/freeId";
import { findDrive, findPool } from "./lookUp";
import { settleIn, takeOut } from "./membership";
import { refuse } from "./refusal";

/** "Pool 1", or the first number that is free. */
function freePoolName(plan: Plan): string {
  const names = new Set(plan.pools.map((pool) => pool.name));
  let n = 1;
  while (names.has(`Pool ${n}`)) n += 1;
  return `Pool ${n}`;
}

function newPool(plan: Plan): Pool {
  const id = freeId(
    "p",
    plan.pools.map((pool) => pool.id),
  );
  plan.pools.push({ id, name: freePoolName(plan), groups: [], spares: [], volumes: [] });
  return findPool(plan, id);
}

/** The groups that a pool is to have. */
export interface NewGroups {
  /** The pool; a new one where it is null. */
  pool: string | null;
  groups: readonly { layout: LayoutId; drives: readonly string[] }[];
}

/** Puts groups into a pool, beside those that it has, and their drives into bays. Returns the pool's id. */
export function putGroups(plan: Plan, { pool: poolId, groups }: NewGroups): string {
  const drives = groups.flatMap((group) => group.drives);
  if (drives.length === 0 || groups.some((group) => group.drives.length === 0))
    refuse("A group needs at least one drive.");
  if (new Set(drives).size < drives.length) refuse("A drive can be in one group only.");
  drives.forEach((id) => findDrive(plan, id));
  const pool = poolId === null ? newPool(plan) : findPool(plan, poolId);
  const taken = plan.pools.flatMap((each) => each.groups.map((group) => group.id));
  takeOut(plan, drives);
  for (const { layout, drives: members } of groups) {
    const id = freeId("g", taken);
    taken.push(id);
    pool.groups.push({ id, layout, drives: [...members], options: {} });
  }
  settleIn(plan, drives);
  return pool.id;
}
