import { storedIn } from "../box/capacities";
import { bandsOfGroup, usableOfPool } from "../box/figures";
import { driveOf, poolOf } from "../box/find";
import { groupOfDrive } from "../box/members";
import { type BoxState, changed } from "../box/state";
import type { StepOf } from "../document/plan";
import { RESHAPE_SHARE, sequentialRate } from "../drives/rates";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { named, volumesFit } from "./checks";
import { filledOf } from "./filledOf";
import { keepArrays } from "./keepArrays";
import { costOfNewSpace } from "./newSpace";
import { parityOf } from "./parityOf";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";

const apply = (state: BoxState, step: StepOf<"remove-drive">, { rules }: Pick<StepSetting, "rules">): BoxState =>
  changed(state, (plan) => {
    const owner = groupOfDrive(plan, step.drive);
    const drive = driveOf(plan, step.drive);
    if (!owner || !drive) return;
    const { group } = owner;
    // The others keep their height: what the smallest held back comes with a claim.
    keepArrays(state.plan, group, rules);
    group.drives = group.drives.filter((id) => id !== step.drive);
    if (group.reach) delete group.reach[step.drive];
    // What it held has been spread over the others.
    delete group.filled;
    drive.place = { shelf: true };
  });

/**
 * A drive fewer: independent drives, chunk layouts, and mirrors of more than two; what is stored must fit on the rest.
 */
export const removeDrive: StepModule<"remove-drive"> = {
  kind: "remove-drive",
  name: "Remove a drive",
  handles: () => [],
  label: (step, names) => `Remove ${names.place(step.drive)}`,
  menu: BY_HAND,
  mayLower: true,
  check: (state, step, setting) => {
    const { plan } = state;
    const owner = groupOfDrive(plan, step.drive);
    if (!owner)
      return [
        against(
          "block",
          "not-a-member",
          `${capital(named(plan, step.drive, setting))} is in no group at this moment.`,
          [step.drive],
        ),
      ];
    const { group, pool } = owner;
    const layout = layoutOf(group.layout);
    if (!layout.canLoseOne?.(group.drives.length))
      return [
        against(
          "block",
          "cannot-be-removed",
          `A drive cannot be taken out of ${layout.shortName} for good: the others cannot hold its part. Replace it, or make the pool anew from a backup.`,
          [step.drive],
        ),
      ];
    const wrong = wrongCount(layout, group.drives.length - 1, setting.rules, group.options);
    if (wrong)
      return [
        against("block", "wrong-drive-count", `${layout.shortName} cannot do without it. ${wrong}`, [step.drive]),
      ];
    if (parityOf(bandsOfGroup(plan, group, setting.rules)).includes(step.drive))
      return [
        against(
          "block",
          "is-the-parity-drive",
          "That is the parity drive: without it nothing protects the others, and none of them can become it. Change it with its own step.",
          [step.drive],
        ),
      ];
    const after = apply(state, step, setting);
    const then = poolOf(after.plan, pool.id);
    const found = volumesFit(state, after, pool.id, setting);
    if (then && storedIn(pool) > usableOfPool(after.plan, then, setting.rules))
      found.push(
        against("block", "does-not-fit", "What is stored does not fit on the remaining drives.", [step.drive]),
      );
    if (layout.independent)
      found.push(
        against("warn", "move-its-data", "What is on it has its own file system: move it to the other drives first.", [
          step.drive,
        ]),
      );
    return found;
  },
  apply,
  cost: ({ plan }, after, step, { rules }) => {
    const owner = groupOfDrive(plan, step.drive);
    const drive = driveOf(plan, step.drive);
    if (!owner || !drive) return noCost({});
    // A box that claims by itself takes in what the smallest held back.
    if (!layoutOf(owner.group.layout).chunked)
      return noCost({ ...costOfNewSpace(plan, after.plan, owner.group.id, rules) });
    const bytes = filledOf(plan, owner.pool, owner.group, rules)[step.drive] ?? 0;
    return noCost({
      hours: hoursFor(bytes, sequentialRate(drive) * RESHAPE_SHARE),
      work: [{ drive: step.drive, reads: bytes, writes: 0 }],
      online: "slower",
    });
  },
  say: ({ plan }, step, setting) => ({
    does: `${capital(named(plan, step.drive, setting))} leaves ${groupOfDrive(plan, step.drive)?.pool.name ?? "its pool"} and goes to the shelf.`,
    why: "The rest of the drives hold all that is stored.",
  }),
};
