import type { Step, StepKind, StepOf } from "../document/plan";
import { emptyMember, erase } from "./groups";
import type { SimBox, SimGroup, Slab } from "./simulatedBox";
import { unitsOf, type Op, type Phase } from "./work";

/** How a kind of step is done by a box, by what it does to the blocks. */
export interface Doing<K extends StepKind> {
  /**
   * What is done at once when the step is begun.
   *
   * @returns the work that then goes on; or why the box refuses it, as a sentence, with nothing done
   */
  begin: (box: SimBox, step: StepOf<K>) => Phase[] | string;
  /** Drives that it takes, by their ids, which must be in no group yet: nobody takes one that is in use. */
  joins?: (step: StepOf<K>) => readonly string[];
  /** Whether it fills a drive in the place of one that is gone, beside others that are filled. */
  bringsBack?: true;
  /** Whether a drive is taken out of its bay once the work has ended. */
  pullsLast?: (box: SimBox, step: StepOf<K>) => boolean;
  /** Whether it makes a volume or its files larger, which owners forget. */
  enlarges?: true;
  /** What is done when the work has ended. */
  end?: (box: SimBox, step: StepOf<K>) => void;
}

/** A step that a box is doing. */
export interface Running {
  step: Step;
  phases: Phase[];
  /** Which phase is under way, and how many seconds of it have passed. */
  phase: number;
  passed: number;
  /** For how long the box is off, or the pool stopped, before it and after it, in seconds. */
  away: number;
  /** Whether it cannot go on, having no room to work in. */
  stuck?: boolean;
  /** Whether it stands still: its group cannot be read. It goes on where it was once that can. */
  held?: boolean;
  /** The step after whose work it begins, by its id: a drive is filled once its group is not rewritten any more. */
  waitsFor?: string;
}

/** A piece of work on the box as it is now. */
export const phaseOf = (box: SimBox, op: Op, seconds: number): Phase => ({
  op,
  units: Math.max(1, unitsOf(box, op)),
  done: 0,
  seconds,
});

/** Time that passes while no block is touched. */
export const waiting = (seconds: number): Phase => ({ op: { kind: "wait" }, units: 1, done: 0, seconds });

/**
 * The time in which a group writes what it has gained: its drives hold what they should meanwhile, and nothing else of
 * its pool is changed.
 */
export const gaining = (group: string, seconds: number): Phase => ({
  op: { kind: "gain", group },
  units: 1,
  done: 0,
  seconds,
});

/** The lowest bay that no drive is in; null where all are taken. */
export function freeBay(box: SimBox): number | null {
  for (let bay = 1; bay <= box.bays; bay += 1) if (!box.drives.some((drive) => drive.bay === bay)) return bay;
  return null;
}

/** Puts a drive into a bay unless it is in one, and erases it. */
export function takeIn(box: SimBox, place: number): void {
  const drive = box.drives[place];
  if (!drive) return;
  drive.bay ??= freeBay(box);
  erase(box, place);
}

/** A drive in the place of another of a slab. One that is filled anew holds nothing of the old shape either. */
function putInSlab(slab: Slab, old: number, next: number, valid: number): void {
  for (const member of slab.members)
    if (member.drive === old) Object.assign(member, { drive: next, valid: Math.min(valid, slab.rows) });
  if (old !== next) return;
  for (const member of slab.rewrite?.old.members ?? [])
    if (member.drive === old) member.valid = Math.min(valid, member.valid);
}

/**
 * A drive in the place of another of a group, taken in as far up as that one was.
 *
 * @param valid up to which row or block it holds what it should already
 * @example putInPlaceOf(box, group, 0, 5, 0) // drive 5 stands for drive 0, and has still to be filled
 */
export function putInPlaceOf(box: SimBox, group: SimGroup, old: number, next: number, valid: number): void {
  const at = group.drives.indexOf(old);
  const blocks = box.drives[next]?.blocks ?? 0;
  group.drives[at] = next;
  group.reach[at] = Math.min(group.reach[at] ?? 0, blocks);
  group.parityDrives = group.parityDrives.map((place) => (place === old ? next : place));
  for (const slab of group.slabs) putInSlab(slab, old, next, valid);
  for (const member of group.chunks?.members ?? []) {
    if (member.drive !== old) continue;
    const { used, reach } = emptyMember(box, next, group.reach[at]);
    used.set(member.used.subarray(0, used.length));
    Object.assign(member, { drive: next, used, valid, reach, lowest: 0 });
  }
}

/** Whether a drive is high enough: sizes are rounded to blocks, each by up to half of one, and heights are sums. */
export const isHighEnough = (box: SimBox, place: number, height: number): boolean =>
  (box.drives[place]?.blocks ?? 0) >= height - 2;

/** How many blocks of a drive a group needs of any that stands in its place. */
export function heightOn(group: SimGroup, place: number): number {
  const slabs = group.slabs.flatMap((slab) =>
    slab.members.filter(({ drive }) => drive === place).map(({ from }) => from + slab.rows),
  );
  const member = group.chunks?.members.find(({ drive }) => drive === place);
  // Chunks are anywhere on a drive, as far up as it is taken in.
  return Math.max(0, member?.reach ?? 0, ...slabs);
}
