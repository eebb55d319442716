import type { Group, Plan, Step, StepBody } from "../document/plan";
import { layouts, layoutOf } from "../layouts/registry";
import { moduleOf } from "../steps/registry";
import { layoutOfLevel, standing } from "./levels";
import { nameOf, type PrintedArray, type PrintedMember } from "./printedBox";
import type { Reading } from "./readingSetting";

// While work runs, the kernel's text does not tell all of it: not in whose place a drive is copied, nor which of a
// mirror's drives are new, nor from which level a rewrite comes. Where the plan's next step is just that, it does.

/** The step with which a plan goes on; null where none is left. */
export const nextStep = (plan: Plan | null): Step | null => plan?.steps.find((step) => !step.disabled) ?? null;

const bodyOf = ({ id: _id, ...body }: Step): StepBody => body as StepBody;

/**
 * The plan's next step, where it puts a drive in the place of another; null where it does something else.
 *
 * @example placedBy(plan) // { drive: "d1", by: "x1", body: { kind: "replace-drive", … } }
 */
export function placedBy(plan: Plan | null): { drive: string; by: string; body: StepBody } | null {
  const step = nextStep(plan);
  const drive = step && moduleOf(step).answers?.(step);
  return step && drive !== undefined && "by" in step ? { drive: drive ?? "", by: step.by, body: bodyOf(step) } : null;
}

/** The plan's next step, where it brings drives into a group that it changes; null where it does something else. */
export function broughtBy(plan: Plan | null, group: string): { drives: readonly string[]; body: StepBody } | null {
  const step = nextStep(plan);
  return step && "group" in step && step.group === group && "drives" in step && step.drives
    ? { drives: step.drives, body: bodyOf(step) }
    : null;
}

const MIRROR = layouts.find((layout) => layout.kernelLevel && layout.stripe({}).copies === "all")?.kernelLevel ?? null;

/** The level that an array is rewritten from, by the layout that the plan has for its group; null where it stays. */
function levelBefore(array: PrintedArray, group: Group, staying: number): string | null {
  const layout = layoutOf(group.layout);
  const parity = layoutOfLevel(array.level, null)?.stripe({}).parity ?? 0;
  // A band of a hybrid is a mirror on as few drives.
  if (layout.cutsAtSizes) return parity > 0 && staying < parity + 2 ? MIRROR : null;
  return layout.kernelLevel !== undefined && layout.kernelLevel !== array.level ? layout.kernelLevel : null;
}

/**
 * An array with the drives that the plan's next step brings in told from those that it has, and with the level that it
 * comes from.
 *
 * @param group of the plan, on whose drives the array lies
 */
export function asPlanned({ plan, drives }: Reading, array: PrintedArray, group: Group | undefined): PrintedArray {
  const brings = group && array.running ? broughtBy(plan, group.id) : null;
  if (!group || !brings) return array;
  const isNew = (member: PrintedMember | null): member is PrintedMember => {
    const id = member ? drives.named(nameOf(member))?.id : undefined;
    return id !== undefined && brings.drives.includes(id) && !group.drives.includes(id);
  };
  const joining = array.places.filter(isNew);
  if (joining.length === 0) return array;
  const staying = standing({ ...array, joining }).length;
  return {
    ...array,
    joining,
    filling: array.filling.filter((member) => !isNew(member)),
    levelBefore: array.levelBefore ?? levelBefore(array, group, staying),
  };
}
