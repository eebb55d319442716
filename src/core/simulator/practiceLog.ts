import type { Drive, Plan, Step } from "../document/plan";
import { pull, seat } from "./hands";
import { befall, type Mishap } from "./mishaps";
import { Practice } from "./practice";

/** Something that was done on a practice box, or befell it; at which hour since it was set up. */
export type PracticeAct = { at: number } &
  /** A step that the owner lets the box begin, called as its plan called it then. */
  (
    | { begins: Step; label: string }
    | { befalls: Mishap }
    /** A drive that the owner pulls, or puts into a free bay. */
    | { pulls: string }
    | { seats: string }
  );

/** All that a practice box follows from. */
export interface PracticeLog {
  /** How it was when it was set up; drives that came later lie on its shelf. */
  plan: Plan;
  seed: number;
  acts: readonly PracticeAct[];
}

/** How fine a practice box is: about a thousandth of its largest drive. */
export const PRACTICE_BLOCKS = 1024;

/**
 * Does something on a practice box as it is now.
 *
 * @returns whether the box let it be done
 * @throws RangeError for a mishap to a drive that is not there
 * @example doAct(practice, { at: practice.box.hours, pulls: "d2" }) // true
 */
export function doAct(practice: Practice, act: PracticeAct): boolean {
  if ("begins" in act) return practice.begin(act.begins);
  if ("seats" in act) return seat(practice, act.seats);
  if ("pulls" in act) pull(practice, act.pulls);
  else befall(practice, act.befalls);
  return true;
}

/**
 * A practice box as its log has it at an hour: the same each time.
 *
 * @param hours since it was set up; what was done later is left out
 * @throws RangeError for a mishap to a drive that is not there
 * @example replay({ plan, seed: 1, acts: [{ at: 2, begins: step }] }, 12).running[0]?.step // the step, ten hours on
 */
export function replay({ plan, seed, acts }: PracticeLog, hours: number): Practice {
  const practice = Practice.of(plan, { blocks: PRACTICE_BLOCKS, seed });
  for (const act of acts) {
    if (act.at > hours) break;
    practice.pass(Math.max(0, act.at - practice.box.hours));
    doAct(practice, act);
  }
  practice.pass(Math.max(0, hours - practice.box.hours));
  return practice;
}

/**
 * The log with drives that a plan has got since, on the shelf of the box: it knows them from the beginning.
 *
 * @example withDrives(log, plan.drives).plan.drives.length
 */
export function withDrives(log: PracticeLog, drives: readonly Drive[]): PracticeLog {
  const fresh = drives.filter(({ id }) => !log.plan.drives.some((drive) => drive.id === id));
  if (fresh.length === 0) return log;
  const onShelf = fresh.map(({ toBuy: _toBuy, lastBay: _lastBay, ...drive }): Drive => ({
    ...drive,
    place: { shelf: true },
  }));
  return { ...log, plan: { ...log.plan, drives: [...log.plan.drives, ...onShelf] } };
}
