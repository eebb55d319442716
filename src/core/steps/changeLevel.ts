import { occupied } from "../bands/occupied";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { passHours } from "../box/passHours";
import { type BoxState, changed, takeIn } from "../box/state";
import type { StepOf } from "../document/plan";
import { REBUILD_SHARE, RESHAPE_SHARE, sequentialRate } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { drivesInWords } from "./checks";
import { keepArrays } from "./keepArrays";
import { checkLevel } from "./levelChecks";
import { parityOf } from "./parityOf";
import { BY_HAND } from "./stepMenu";
import { noCost, type StepModule, type StepSetting } from "./stepModule";

function apply(state: BoxState, step: StepOf<"change-level">, { rules }: StepSetting): BoxState {
  return changed(state, (plan) => {
    const group = groupOf(plan, step.group);
    if (!group) return;
    const parity =
      layoutOf(group.layout).dedicatedParity && layoutOf(step.layout).dedicatedParity
        ? parityOf(bandsOfGroup(state.plan, groupOf(state.plan, step.group) ?? group, rules))
        : [];
    // Without a drive more or fewer the same blocks are read in another way, and none is moved.
    keepArrays(state.plan, group, rules, step.drives.length + (step.without?.length ?? 0) > 0);
    for (const drive of step.drives) takeIn(plan, drive);
    const stays = group.drives.filter((drive) => !step.without?.includes(drive));
    const arranges = layoutOf(group.layout).becomes.find((path) => path.to === step.layout)?.arranges;
    group.drives = arranges ? arranges(stays, step.drives) : [...stays, ...step.drives];
    for (const drive of step.without ?? []) if (group.reach) delete group.reach[drive];
    group.layout = step.layout;
    if (!layoutOf(step.layout).keepsArrays) delete group.kept;
    delete group.filled;
    if (step.options) group.options = { ...step.options };
    if (arranges && layoutOf(step.layout).chooses === "pairs") group.options = { ...group.options, pairs: "as-named" };
    if (parity.length > 0) group.options = { ...group.options, parityDrives: [...parity, ...step.drives] };
  });
}

/**
 * Another level for a group, its heights kept: one at a time or in one go by the rules, shape and drive count checked.
 */
export const changeLevel: StepModule<"change-level"> = {
  kind: "change-level",
  name: "Change the level",
  handles: (step) => step.drives,
  rewrites: true,
  label: (step, names) =>
    `To ${layoutOf(step.layout).shortName}${step.drives.length > 0 ? ` with ${names.list(step.drives)}` : ""}`,
  menu: BY_HAND,
  mayLower: true,
  check: (state, step, setting) => checkLevel(state, step, setting, () => apply(state, step, setting)),
  apply,
  cost: ({ plan }, after, step, { rules }) => {
    const [before, then] = [groupOf(plan, step.group), groupOf(after.plan, step.group)];
    if (!before || !then) return noCost({});
    const [was, is] = [occupied(bandsOfGroup(plan, before, rules)), occupied(bandsOfGroup(after.plan, then, rules))];
    if (layoutOf(step.layout).dedicatedParity) {
      const bytes = Math.max(0, ...was.values());
      return noCost({
        hours: hoursFor(bytes, Math.min(...drivesOf(after.plan, then.drives).map(sequentialRate)) * REBUILD_SHARE),
        erased: [...step.drives],
        work: [
          ...before.drives.map((drive) => ({ drive, reads: was.get(drive) ?? 0, writes: 0 })),
          ...step.drives.map((drive) => ({ drive, reads: 0, writes: is.get(drive) ?? 0 })),
        ],
        online: "slower",
      });
    }
    return noCost({
      hours: passHours(plan, was, RESHAPE_SHARE),
      erased: [...step.drives],
      work: [
        ...before.drives.map((drive) => ({ drive, reads: was.get(drive) ?? 0, writes: is.get(drive) ?? 0 })),
        ...step.drives.map((drive) => ({ drive, reads: 0, writes: is.get(drive) ?? 0 })),
      ],
      online: "slower",
      undoable: false,
    });
  },
  say: ({ plan }, step, setting) => {
    const group = groupOf(plan, step.group);
    const joining = step.drives.length > 0 ? `, with ${drivesInWords(plan, step.drives, setting)}` : "";
    return {
      does: `${poolOfGroup(plan, step.group)?.name ?? "The pool"} goes from ${group ? layoutOf(group.layout).shortName : "its layout"} to ${layoutOf(step.layout).shortName}${joining}.`,
      why: `${capital(layoutOf(step.layout).name)}: ${layoutOf(step.layout).summary}`,
    };
  },
};
