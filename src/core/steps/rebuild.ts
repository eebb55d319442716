import { fateOfPool } from "../box/figures";
import { driveOf, groupOf, poolOfGroup } from "../box/find";
import { type BoxState, changed } from "../box/state";
import type { Group, Plan, StepOf } from "../document/plan";
import { bayOf } from "../drives/drive";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { survivesMeanwhile } from "../words/survives";
import { handling, joiningFindings, named } from "./checks";
import { costOfFilling } from "./costOfFilling";
import { checkFit, type Gap, isSpareOf, lookUpGap, seatInPlaceOf } from "./fillingGap";
import { putInPlaceOf } from "./inPlaceOf";
import { rebuiltTogether } from "./rebuiltTogether";
import { BY_HAND } from "./stepMenu";
import { against, type StepModule, type StepSetting } from "./stepModule";

/** That what is left can give back what was on the drive; and what a further failure would do meanwhile. */
function checkRest(plan: Plan, { pool, old }: Gap, setting: StepSetting): Finding[] {
  const fate = fateOfPool(plan, pool, setting.rules, [old.id, ...(setting.unready ?? [])]);
  if (fate.kind === "lost" || (fate.kind === "partly-lost" && fate.lostDrives.includes(old.id))) {
    const message =
      `What was on ${named(plan, old.id, setting)} cannot be worked out from the drives that are left. Only a ` +
      "backup brings it back.";
    return [against("block", "nothing-to-rebuild-from", message, [old.id])];
  }
  if (fate.kind !== "degraded" || fate.redundancy > 0) return [];
  return [against("warn", "no-redundancy", `While the new drive is filled, ${survivesMeanwhile(0)}.`, [old.id])];
}

/** That the box fills drives by itself: with parity by schedule the files of a data drive are restored. */
function checkFilling(group: Group, step: StepOf<"rebuild">, { rules }: StepSetting): Finding[] {
  const isData = !group.options?.parityDrives?.includes(step.drive);
  if (!layoutOf(group.layout).dedicatedParity || rules.parityWrites !== "by-schedule" || !isData) return [];
  const message = "With parity by schedule a box fills no drive by itself. Restore the drive instead.";
  return [
    against("block", "restore-instead", message, [step.drive], {
      label: "Restore it",
      command: {
        kind: "replace-step",
        step: step.id,
        by: [{ kind: "restore-drive", group: group.id, drive: step.drive, by: step.by }],
      },
    }),
  ];
}

function check({ plan, tested }: BoxState, step: StepOf<"rebuild">, setting: StepSetting): Finding[] {
  const looked = lookUpGap(plan, step, setting);
  if (!looked.ok) return looked.found;
  const { gap } = looked;
  const rest = [...checkRest(plan, gap, setting), ...checkFilling(gap.group, step, setting)];
  if (gap.next === gap.old || rest.some(({ code }) => code === "restore-instead")) return rest;
  return [
    ...rest,
    ...checkFit(plan, gap, setting),
    // A spare is in the box, and takes over before anybody could test it.
    ...(isSpareOf(gap.pool, gap.group, step.by)
      ? []
      : joiningFindings([gap.next], gap.others, gap.group, setting, tested)),
  ];
}

/** A drive that has failed or is missing is replaced, and what was on it is worked out again from the others. */
export const rebuild: StepModule<"rebuild"> = {
  kind: "rebuild",
  name: "Rebuild a drive that is gone",
  boxWork: () => "rebuild",
  tells: ({ by }, names) => [`Tell the box to rebuild onto ${names.drive(by)}, if it has not begun by itself.`],
  paced: true,
  handles: (step) => [step.by],
  label: (step, names) =>
    step.by === step.drive
      ? `Fill ${names.size(step.by)} again`
      : `Rebuild ${names.place(step.drive)} on ${names.size(step.by)}`,
  menu: BY_HAND,
  answers: (step) => step.drive,
  ifADriveFails: () =>
    "Another is missing already: where no more may be lost, data is lost, and only what was copied away is " +
    "safe. Otherwise let it end before you replace the next.",
  // A spare, and a drive that is back, are filled where they are.
  swaps: (step, plan) => {
    const next = driveOf(plan, step.by);
    return next && bayOf(next) === null && step.by !== step.drive ? 1 : 0;
  },
  mayRunBeside: (step, running, plan) => rebuiltTogether(step.drive, running, plan),
  check,
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      const [pool, group] = [poolOfGroup(plan, step.group), groupOf(plan, step.group)];
      if (!old || !next || !pool || !group) return;
      pool.spares = pool.spares.filter((id) => id !== step.by);
      if (group.spares) group.spares = group.spares.filter((id) => id !== step.by);
      putInPlaceOf(state.plan, plan, old.id, next.id, rules);
      seatInPlaceOf(plan, old, next);
      delete next.state;
      delete next.since;
      delete next.lastBay;
    }),
  cost: costOfFilling,
  say: ({ plan }, step, setting) => {
    const pool = poolOfGroup(plan, step.group);
    const group = groupOf(plan, step.group);
    const [old, next] = [named(plan, step.drive, setting), named(plan, step.by, setting)];
    if (step.by === step.drive)
      return {
        does: `${capital(old)} goes back in and is filled again from the others.`,
        why: "What was written while it was away is not on it.",
      };
    const takesOver = pool && group && isSpareOf(pool, group, step.by);
    return takesOver
      ? {
          does: `${capital(next)}, a hot spare, has taken over for ${old} and is being filled from the others.`,
          why: "Your box does this by itself. Until it has ended your data has less protection.",
        }
      : {
          does: `${capital(next)} takes the place of ${old} and is filled from the others.${handling(setting)}`,
          why: "Until it has ended your data has less protection.",
        };
  },
};
