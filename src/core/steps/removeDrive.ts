import { inText } from "../layouts/inText";
import { occupied } from "../bands/occupied";
import { rebuildShare } from "../bands/workShare";
import { underParity } from "../bands/underParity";
import { leaveBay } from "../box/bays";
import { storedIn } from "../box/capacities";
import { bandsOfGroup, usableOfPool } from "../box/figures";
import { driveOf, drivesOf, groupOf, poolOf } from "../box/find";
import { groupOfDrive } from "../box/members";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed } from "../box/state";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Group, Plan, StepOf } from "../document/plan";
import { isGone } from "../drives/driveState";
import { RESHAPE_SHARE, sequentialRate } from "../drives/rates";
import { wrongCount } from "../layouts/problemsOfLayout";
import type { Layout } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { workRate } from "../speeds/pace";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { named, volumesFit } from "./checks";
import { keepArrays } from "./keepArrays";
import { costOfNewSpace } from "./newSpace";
import { parityOf } from "../bands/parityOf";
import { BY_HAND } from "./stepMenu";
import { workedThrough } from "./workedThrough";
import { against, noCost, type StepCost, type StepModule, type StepSetting } from "./stepModule";
import { withoutValue } from "../records/ownValue";

const apply = (state: BoxState, step: StepOf<"remove-drive">, { rules }: Pick<StepSetting, "rules">): BoxState =>
  changed(state, (plan) => {
    const owner = groupOfDrive(plan, step.drive);
    const drive = driveOf(plan, step.drive);
    if (!owner || !drive) return;
    const { group } = owner;
    // The others keep their height: what the smallest held back comes with a claim.
    keepArrays(state.plan, group, rules);
    group.drives = group.drives.filter((id) => id !== step.drive);
    if (group.reach) group.reach = withoutValue(group.reach, step.drive);
    // What it held has been spread over the others.
    delete group.filled;
    if (isGone(drive)) leaveBay(drive);
    drive.place = { shelf: true };
  });

/** Why no drive can be taken out of a group for good. */
function whyNotRemoved(layout: Layout, { rules }: StepSetting): string {
  if (layout.widening === "copies")
    return "A mirror of two cannot do without one of them: it would be no mirror any more. Replace the drive, or dissolve the pool.";
  return rules.arrayFormat === "linux-raid" && layout.keepsArrays && !layout.takesNoSpare
    ? `A group of ${inText(layout)} can have a drive fewer only after its file system, its volume and the array have been made smaller, which is not in this program's reach. Replace the drive, or make the pool again and restore it from a backup.`
    : `A drive cannot be removed from ${layout.name} for good: the others cannot hold its part. Replace it, or make the pool again and restore it from a backup.`;
}

/** The parity of the drives that stay, worked out again: all of them read, and until then nothing protects them. */
function costOfParity(after: Plan, id: string, rules: BoxRules): StepCost {
  const group = groupOf(after, id);
  if (!group) return noCost({});
  const bands = bandsOfGroup(after, group, rules);
  const parity = parityOf(bands);
  return noCost({
    hours: bandHours(bands, drivesOf(after, group.drives), rebuildShare, rules),
    work: [...occupied(bands)].map(([drive, bytes]) =>
      parity.includes(drive) ? { drive, reads: 0, writes: bytes } : { drive, reads: bytes, writes: 0 },
    ),
    online: "slower",
    missing: [...parity],
    undoable: false,
  });
}

/** The copies or parity that were on a drive which is gone, made again on the others from what those have. */
function costOfHealing(plan: Plan, group: Group, gone: string, bytes: Bytes, rules: BoxRules): StepCost {
  const others = drivesOf(plan, group.drives).filter((drive) => drive.id !== gone && !isGone(drive));
  const share = Math.round(bytes / Math.max(1, others.length));
  const parity = underParity(bandsOfGroup(plan, group, rules));
  // Each of the others reads and writes its share of it.
  const rate = workRate(slowestRate(others), RESHAPE_SHARE, rules, parity);
  return noCost({
    hours: hoursFor(2 * share, rate),
    work: others.map((drive) => ({ drive: drive.id, reads: share, writes: share })),
    online: "slower",
    undoable: false,
  });
}

/**
 * A drive fewer: independent drives, chunk layouts, and mirrors of more than two; what is stored must fit on the rest.
 */
export const removeDrive: StepModule<"remove-drive"> = {
  kind: "remove-drive",
  name: "Remove a drive",
  boxWork: () => "rewrite",
  tells: ({ drive }, names) => [
    `Tell the box to remove ${names.drive(drive)} for good, and leave it in until it says that this has ended.`,
  ],
  pullsLast: () => true,
  paced: true,
  handles: () => [],
  label: (step, names) => `Remove ${names.place(step.drive)}`,
  answers: (step) => step.drive,
  whileDegraded: "block",
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
      return [against("block", "cannot-be-removed", whyNotRemoved(layout, setting), [step.drive])];
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
    // What was on one that is gone of independent drives is lost with it, or has to be restored to another first.
    if (layout.independent && isGone(driveOf(plan, step.drive) ?? {}))
      found.push(
        against(
          layout.dedicatedParity ? "block" : "warn",
          "leaves-its-data",
          layout.dedicatedParity
            ? "Without it nothing could give back what was on it: rebuild or restore it to another drive."
            : "What was on it is given up. If it can be had from a backup, restore it to another drive instead.",
          [step.drive],
        ),
      );
    else if (layout.independent)
      found.push(
        against(
          "warn",
          "move-its-data",
          "What is on it has a file system of its own, and leaves with it: move it to the other drives first, as far as they have space.",
          [step.drive],
        ),
      );
    return found;
  },
  apply,
  cost: ({ plan }, after, step, { rules }) => {
    const owner = groupOfDrive(plan, step.drive);
    const drive = driveOf(plan, step.drive);
    if (!owner || !drive) return noCost({});
    if (layoutOf(owner.group.layout).dedicatedParity) return costOfParity(after.plan, owner.group.id, rules);
    if (layoutOf(owner.group.layout).independent) return noCost({ undoable: false });
    // A box that claims by itself takes in what the smallest held back.
    if (!layoutOf(owner.group.layout).chunked)
      return noCost({ ...costOfNewSpace(plan, after.plan, owner.group.id, rules) });
    const bytes = workedThrough(plan, owner.pool, owner.group, rules).get(step.drive) ?? 0;
    const parity = underParity(bandsOfGroup(plan, owner.group, rules));
    if (isGone(drive)) return costOfHealing(plan, owner.group, step.drive, bytes, rules);
    return noCost({
      hours: hoursFor(bytes, workRate(sequentialRate(drive), RESHAPE_SHARE, rules, parity)),
      work: [{ drive: step.drive, reads: bytes, writes: 0 }],
      online: "slower",
    });
  },
  say: ({ plan }, step, setting) => {
    const owner = groupOfDrive(plan, step.drive);
    const layout = owner && layoutOf(owner.group.layout);
    const why = layout?.dedicatedParity
      ? "What is on it leaves with it; the parity is worked out again for the others; until then, a failed drive would lose data."
      : layout?.independent
        ? "What is on it leaves with it; the others keep what is theirs."
        : layout?.chunked
          ? "What it holds is spread over the others first."
          : "The others hold all that is stored, and survive the loss of one drive fewer.";
    return {
      does: `${capital(named(plan, step.drive, setting))} leaves ${owner?.pool.name ?? "its pool"} and goes to the shelf.`,
      why,
    };
  },
};
