import { produce } from "immer";
import type { Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import { freeBay } from "./bays";
import { driveOf } from "./find";

/**
 * The box at a moment: the plan document as it would then be, and what has been done that the document does not tell.
 */
export interface BoxState {
  plan: Plan;
  /** Drives that have passed an extended self-test. */
  tested: ReadonlySet<string>;
  /**
   * Pools of which a full backup was made after the last step that could have lost their data, with the rate of the way
   * there and back, in bytes per second.
   */
  backedUp: ReadonlyMap<string, number>;
}

/** The state with a changed plan. */
export function changed(state: BoxState, recipe: (plan: Plan) => void): BoxState {
  return { ...state, plan: produce(state.plan, (draft) => recipe(draft as Plan)) };
}

/** Puts a drive into a free bay unless it is in one; what was on it is erased. For use inside `changed`. */
export function takeIn(plan: Plan, id: string): void {
  const drive = driveOf(plan, id);
  if (!drive) return;
  const bay = bayOf(drive) ?? freeBay(plan);
  if (bay !== null) drive.place = { bay };
  delete drive.contents;
  delete drive.toBuy;
}
