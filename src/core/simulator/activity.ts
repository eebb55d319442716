import type { Practice } from "./practice";
import { groupNamed, type SimBox, type SimGroup } from "./simulatedBox";
import type { Op, Phase } from "./work";

/** What a drive does now. */
export interface Activity {
  reads: boolean;
  writes: boolean;
  /** How far up of it the work has come, from 0 at its foot to 1; null where it has no front. */
  front: number | null;
}

/** The block of a drive at which work on its rows is, going through its slabs from the bottom up. */
function blockAt(group: SimGroup, place: number, done: number): number {
  let left = done;
  for (const { members, rows } of group.slabs) {
    const member = members.find(({ drive }) => drive === place);
    if (!member) continue;
    if (left < rows) return member.from + left;
    left -= rows;
  }
  const tops = group.slabs.flatMap(({ members, rows }) =>
    members.flatMap(({ drive, from }) => (drive === place ? [from + rows] : [])),
  );
  return Math.max(0, ...tops);
}

/** The height at which the rows of a rewrite stand: below it they have their new shape, above where it holds less. */
function frontOfRewrite({ slabs }: SimGroup): number | null {
  const under =
    slabs.find(({ rewrite }) => rewrite && rewrite.front < rewrite.old.rows) ?? slabs.find((s) => s.rewrite);
  if (!under?.rewrite) return null;
  const { front, down } = under.rewrite;
  return (under.members[0]?.from ?? 0) + (down ? under.rows - front : front);
}

/** The height of work on a group, in blocks of its drives; of chunks as a share of what is done. */
function heightOf(group: SimGroup, op: Op, { done, units }: Phase, blocks: number): number | null {
  if (op.kind === "gain") return null;
  if (group.chunks) return (done / Math.max(1, units)) * blocks;
  if (op.kind === "fill") return blockAt(group, op.place, done);
  if (op.kind === "copy") return blockAt(group, op.from, done);
  return op.kind === "rewrite" ? frontOfRewrite(group) : (done / Math.max(1, units)) * blocks;
}

/** Which drives a piece of work reads and writes. */
function partsOf(box: SimBox, op: Op): { groups: readonly SimGroup[]; writes: (place: number) => boolean } {
  const own = "group" in op ? groupNamed(box, op.group)?.group : undefined;
  const groups = own ? [own] : op.kind === "check" ? (box.pools.find(({ id }) => id === op.pool)?.groups ?? []) : [];
  return {
    groups,
    writes: (place) =>
      op.kind === "fill" ? place === op.place : op.kind === "copy" ? place === op.to : op.kind !== "check",
  };
}

/** A drive that is gone through by itself, from end to end. */
function alone(box: SimBox, op: Op, { done, units }: Phase): { id: string; does: Activity } | null {
  if (op.kind !== "overwrite" && op.kind !== "read-through") return null;
  const drive = box.drives[op.place];
  const writes = op.kind === "overwrite";
  return drive ? { id: drive.id, does: { reads: !writes, writes, front: done / Math.max(1, units) } } : null;
}

/** Kinds of work that read the drives which they write. */
const READS_TOO: ReadonlySet<Op["kind"]> = new Set(["rewrite", "restripe", "agree", "gain"]);

/**
 * What the drives of a box do now: which are read, which are written, and how far up the work has come on each.
 *
 * @returns by the drives' ids; those that rest are not in it
 * @example activityOf(practice).get("d2") // { reads: false, writes: true, front: 0.4 }: it is being filled
 */
export function activityOf({ box, running }: Practice): Map<string, Activity> {
  const active = new Map<string, Activity>();
  for (const { phases, phase: at, held, away } of running) {
    const phase = phases[at];
    if (!phase || held || away > 0) continue;
    const { op } = phase;
    const single = alone(box, op, phase);
    if (single) active.set(single.id, single.does);
    const { groups, writes } = partsOf(box, op);
    for (const group of groups)
      for (const place of op.kind === "copy" ? [op.from, op.to] : group.drives) {
        const drive = box.drives[place];
        if (drive?.state !== "works") continue;
        const height = heightOf(group, op, phase, drive.blocks);
        active.set(drive.id, {
          reads: !writes(place) || READS_TOO.has(op.kind),
          writes: writes(place),
          front: height === null ? null : Math.min(1, height / Math.max(1, drive.blocks)),
        });
      }
  }
  return active;
}

/**
 * Drives that stand in a group and do not hold yet what they should, by their ids.
 *
 * @example unfilledIn(practice).has("x1") // true until it has been filled
 */
export function unfilledIn({ box }: Practice): Set<string> {
  const unfilled = new Set<string>();
  for (const { slabs, chunks } of box.pools.flatMap(({ groups }) => groups)) {
    const members = [
      ...slabs.flatMap((slab) => slab.members.map(({ drive, valid }) => ({ drive, isFilled: valid >= slab.rows }))),
      ...(chunks?.members.map(({ drive, valid, used }) => ({ drive, isFilled: valid >= used.length })) ?? []),
    ];
    for (const { drive, isFilled } of members) {
      const is = box.drives[drive];
      if (is?.state === "works" && !isFilled) unfilled.add(is.id);
    }
  }
  return unfilled;
}
