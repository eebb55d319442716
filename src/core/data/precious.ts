import type { DataSet, Plan, Step } from "../document/plan";
import type { Finding } from "../findings/finding";
import { listOf } from "../words/listOf";
import { notBackedUp } from "./backup";
import { ANY_DESTINATION, destinationOf } from "./destination";
import { PRECIOUS_WITHOUT_BACKUP } from "./liftable";
import { dataSetsIn, dataSetsOnDrive } from "./stored";

const bareAmong = (plan: Plan, sets: readonly DataSet[], day: string | null): DataSet[] =>
  notBackedUp(
    plan,
    sets.filter((set) => set.worth === "precious"),
    day,
  );

/** The precious data sets of a pool that no current backup holds. */
export const bareIn = (plan: Plan, pool: string, day: string | null): DataSet[] =>
  bareAmong(plan, dataSetsIn(plan, pool), day);

const names = (sets: readonly DataSet[]) => listOf(sets.map((set) => set.name));

/**
 * What stands against a risky step on a pool with precious data that is nowhere else: a block, that the owner can lift
 * in writing; a warning that tells what was said, once it is lifted.
 *
 * @param plan the box before the step
 * @param risk what the step does to the pool, as the beginning of a sentence
 * @param day as YYYY-MM-DD, to judge how old backups are
 */
export function preciousFindings(plan: Plan, step: Step, pool: string, risk: string, day: string | null): Finding[] {
  const there = plan.pools.find((each) => each.id === pool);
  return blockOrLifted(step, bareIn(plan, pool, day), risk, "Back it up first", {
    label: "Back up first",
    command: {
      kind: "insert-steps",
      before: step.id,
      steps: [{ kind: "back-up", pool, to: there ? destinationOf(plan, there) : ANY_DESTINATION }],
    },
  });
}

/**
 * The same of a step that erases a drive of no pool on which there is precious data.
 *
 * @param drive its id
 * @param name of the drive, as the beginning of a sentence
 */
export function preciousOnDrive(plan: Plan, step: Step, drive: string, name: string, day: string | null): Finding[] {
  const bare = bareAmong(plan, dataSetsOnDrive(plan, drive), day);
  return blockOrLifted(step, bare, `${name} is erased`, "Copy it away and enter the backup first", {
    label: "Skip this step",
    command: { kind: "edit-step", step: step.id, changes: { disabled: true } },
  });
}

/** A block about precious data, with what mends it; a warning that tells what was said, once it is lifted. */
function blockOrLifted(
  step: Step,
  bare: readonly DataSet[],
  risk: string,
  help: string,
  mend: NonNullable<Finding["mend"]>,
): Finding[] {
  if (bare.length === 0) return [];
  const what = `${risk}, and no current backup holds ${names(bare)}, which cannot be had again.`;
  if (step.lifted)
    return [
      {
        code: "lifted-in-writing",
        severity: "warn",
        message: `${what} On ${step.lifted.on} you wrote: “${step.lifted.words}”`,
        drives: [],
        mend: { label: "Take that back", command: { kind: "edit-step", step: step.id, changes: { lifted: null } } },
      },
    ];
  return [
    {
      code: PRECIOUS_WITHOUT_BACKUP,
      severity: "block",
      message: `${what} ${help}, or say in writing that you go on without.`,
      drives: [],
      mend,
    },
  ];
}
