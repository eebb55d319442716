import type { Drive, Plan, Step } from "../document/plan";
import { freeId } from "../records/freeId";
import { doingOf } from "../simulator/doings/registry";
import { placeOf } from "../simulator/simulatedBox";
import type { Practice } from "../simulator/practice";

/** What stands in the place of a drive since it is gone, by ids. */
export type InPlace = Map<string, string>;

/** A step as it can be done after what has happened. */
export interface Adapted {
  does: Step;
  /** Drives that have to be bought for it first. */
  brings: Drive[];
}

/** What a step is adapted to. */
export interface AdaptedTo {
  /** The box as it is, and the plan as it was begun. */
  plan: Plan;
  play: { plan: Plan };
  practice: Practice;
  inPlace: ReadonlyMap<string, string>;
}

/** The drive that stands for one that the plan names. */
function standsFor(inPlace: ReadonlyMap<string, string>, id: string): string {
  let at = id;
  for (const _each of inPlace) at = inPlace.get(at) ?? at;
  return at;
}

/** Whether a drive is in a group. */
const isUsed = ({ plan }: AdaptedTo, id: string): boolean =>
  plan.pools.some(({ groups }) => groups.some((group) => group.drives.includes(id)));

/** Whether a drive is in a group of another pool than the one that a step is about. */
const isOthers = ({ plan }: AdaptedTo, step: Step, id: string): boolean =>
  "pool" in step &&
  plan.pools.some((pool) => pool.id !== step.pool && pool.groups.some((group) => group.drives.includes(id)));

/** Whether a drive does not work, or is smaller than the plan has it. */
function isBroken({ play, practice: { box } }: AdaptedTo, id: string): boolean {
  const is = box.drives[placeOf(box, id)];
  const asked = play.plan.drives.find((drive) => drive.id === id);
  return is !== undefined && (is.state !== "works" || (asked !== undefined && is.bytes < asked.bytes));
}

/** A new drive like one that the plan has, under a name of its own. */
function anotherLike({ play, practice: { box } }: AdaptedTo, id: string): Drive | null {
  const like = play.plan.drives.find((drive) => drive.id === id);
  if (!like) return null;
  const { serial: _serial, state: _state, contents: _contents, ...rest } = like;
  const name = freeId(
    "b",
    box.drives.map((drive) => drive.id),
  );
  return { ...rest, id: name, health: { state: "good" }, place: { shelf: true } };
}

/**
 * A step of a plan as its owner does it after something has gone wrong: with what stands in the place of a drive that
 * is gone, and with another drive where the one that was to join is not to be had any more.
 *
 * @returns null where it is done already: the drive that was to come stands there
 * @example adapted(stage, { id: "s2", kind: "test-drive", drive: "d1" })?.does // of the drive in the place of d1
 */
export function adapted(to: AdaptedTo, step: Step): Adapted | null {
  const own = "drive" in step && step.drive !== undefined ? { drive: standsFor(to.inPlace, step.drive) } : {};
  if (isDone(to, step, own.drive ?? "")) return null;
  const brings: Drive[] = [];
  const joins = new Set(doingOf(step).joins?.(step));
  const instead = (id: string): string => {
    const stands = joins.has(id) ? id : standsFor(to.inPlace, id);
    const isSpent = isBroken(to, stands) || (joins.has(id) ? isUsed(to, id) : isOthers(to, step, stands));
    const another = isSpent ? anotherLike(to, id) : null;
    if (another) brings.push(another);
    return another?.id ?? stands;
  };
  const by = "by" in step ? { by: instead(step.by) } : {};
  const drives =
    !("by" in step) && "drives" in step && Array.isArray(step.drives)
      ? { drives: [...new Set(step.drives.map(instead))] }
      : {};
  return { does: { ...step, ...own, ...by, ...drives } as Step, brings };
}

/** Whether a step is done already: a drive that was gone is back or another stands there, as the step would have it. */
function isDone(to: AdaptedTo, step: Step, drive: string): boolean {
  if (doingOf(step).bringsBack && !isUsed(to, "drive" in step ? (step.drive ?? "") : "")) return true;
  return "by" in step && (step.by === drive || (isUsed(to, step.by) && !isUsed(to, drive)));
}
