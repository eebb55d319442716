import { survivesMeanwhile } from "../words/survives";
import { freeBay } from "../box/bays";
import { bandsOfGroup, fateOfPool } from "../box/figures";
import { driveOf, drivesOf } from "../box/find";
import { groupOfDrive, isFree } from "../box/members";
import type { BoxState } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import { leastInPlaceOf } from "../box/standIn";
import type { Drive, Group, Plan, Pool, StepOf } from "../document/plan";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { IF_WRONG } from "../rules/ifWrong";
import { capital } from "../words/capital";
import { largerThanParity } from "./besideParity";
import { shortBy } from "../drives/shortBy";
import { joiningFindings, missingDrives, named } from "./checks";
import { parityOf } from "../bands/parityOf";
import { partUsedFindings } from "./partUsedFindings";
import { roomForChunks } from "./roomForChunks";
import { against, type StepSetting } from "./stepModule";

/** What a check of a replacement looks at. */
interface Replacement {
  plan: Plan;
  step: StepOf<"replace-drive">;
  setting: StepSetting;
  pool: Pool;
  group: Group;
  old: Drive;
  next: Drive;
}

/** That the new drive is free. */
function taken({ plan, step, setting }: Replacement): Finding[] {
  if (isFree(plan, step.by)) return [];
  const message = `${capital(named(plan, step.by, setting))} is in use at this moment. Choose a free drive.`;
  return [against("block", "drive-taken", message, [step.by])];
}

/** That it reaches as high as the group uses the old one. */
function tooSmall({ plan, step, setting, group, old, next }: Replacement): Finding[] {
  const { rules, family } = setting;
  const height = leastInPlaceOf(plan, group, old, rules);
  const short = height - roomOf(next, rules).between;
  if (short <= 0) return [];
  const { by, help } = shortBy(short, height, family);
  const message =
    `${capital(named(plan, step.by, setting))} is too small by ${by}: the group uses ` +
    `${formatBytes(height, family)} of the drive it replaces.${help}`;
  return [against("block", "too-small", message, [step.by])];
}

/** That a parity drive is changed by its own step, and that no data drive becomes larger than it. */
function besideParity({ plan, step, setting, group, old, next }: Replacement): Finding[] {
  const { rules } = setting;
  const parity = parityOf(bandsOfGroup(plan, group, rules));
  if (parity.includes(old.id))
    return [
      against(
        "block",
        "is-the-parity-drive",
        "That is the parity drive: change it with its own step, which works the parity out again.",
        [old.id],
        {
          label: "Change the parity drive",
          command: {
            kind: "replace-step",
            step: step.id,
            by: [{ kind: "change-parity-drive", group: group.id, drive: old.id, by: next.id }],
          },
        },
      ),
    ];
  return largerThanParity(plan, group, drivesOf(plan, group.drives), [next], setting, (was, larger) => ({
    step: step.id,
    by: [
      { kind: "change-parity-drive", group: group.id, drive: was.id, by: larger.id },
      { kind: "replace-drive", drive: step.drive, by: was.id, how: step.how },
    ],
  }));
}

/** What is left of the pool without the old drive, where that is pulled first. */
function pulled({ plan, step, setting, pool, group }: Replacement): Finding[] {
  const fate = fateOfPool(plan, pool, setting.rules, [step.drive, ...(setting.unready ?? [])]);
  // With nothing left to lose, no other drive is pulled, also where this one happens to hold nothing of what is bare.
  const now = fateOfPool(plan, pool, setting.rules);
  const isBare = now.kind === "degraded" && now.redundancy <= 0 && !now.missing.includes(step.drive);
  if (fate.kind === "lost" || fate.kind === "partly-lost" || isBare) {
    const help =
      setting.rules.replacing === "old-attached" && !layoutOf(group.layout).takesNoSpare
        ? "Keep the old drive in its bay while the new one is filled."
        : "Back it up first, then restore.";
    const message = `This pool cannot replace what is on ${named(plan, step.drive, setting)}. ${help}`;
    return [against("block", "nothing-to-rebuild-from", message, [step.drive])];
  }
  if (fate.kind !== "degraded" || fate.redundancy > 0) return [];
  return [against("warn", "no-redundancy", `While the new drive is filled, ${survivesMeanwhile(0)}.`, [step.drive])];
}

/** That the box can fill a drive while the old one is still in, and that there is a bay for it. */
function attached({ plan, step, setting, group, old, next }: Replacement): Finding[] {
  const layout = layoutOf(group.layout);
  if (isGone(old)) {
    const message = `Nothing can be copied from ${named(plan, step.drive, setting)}. Rebuild it from the others.`;
    return [
      against("block", "nothing-to-copy", message, [step.drive], {
        label: "Rebuild it from the others",
        command: {
          kind: "replace-step",
          step: step.id,
          by: [{ kind: "rebuild", group: group.id, drive: step.drive, by: step.by }],
        },
      }),
    ];
  }
  if (layout.takesNoSpare) {
    const message =
      `No drive of a ${layout.name} can be copied to another while it runs. Make it again and restore it from a ` +
      "backup.";
    return [against("block", "no-live-replacement", message, [step.drive])];
  }
  const mend: Finding["mend"] = {
    label: "Pull it first",
    command: { kind: "edit-step", step: step.id, changes: { how: "pulled" } },
  };
  if (setting.rules.replacing !== "old-attached") {
    const message = `Your box replaces a drive only after the old one is pulled. ${IF_WRONG}`;
    return [against("block", "not-attached", message, [], mend)];
  }
  if (bayOf(next) !== null || freeBay(plan) !== null) return [];
  return [against("block", "no-free-bay", "No bay is free for the new drive while the old one is still in.", [], mend)];
}

/** What stands against another drive in the place of a member. */
export function checkReplacing(
  { plan, tested }: BoxState,
  step: StepOf<"replace-drive">,
  setting: StepSetting,
): Finding[] {
  const missing = missingDrives(plan, [step.drive, step.by]);
  if (missing.length > 0) return missing;
  const owner = groupOfDrive(plan, step.drive);
  const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
  if (!owner || !old || !next) {
    const message = `${capital(named(plan, step.drive, setting))} is in no group at this moment.`;
    return [against("block", "not-a-member", message, [step.drive])];
  }
  const replacement: Replacement = { plan, step, setting, ...owner, old, next };
  const others = drivesOf(plan, owner.group.drives).filter((drive) => drive.id !== old.id);
  return [
    ...taken(replacement),
    ...tooSmall(replacement),
    ...besideParity(replacement),
    ...(step.how === "pulled" ? pulled(replacement) : attached(replacement)),
    ...roomForChunks(plan, owner.pool, step, { does: "Replacing a drive of", uses: [step.by] }, setting),
    ...(next.bytes > old.bytes ? partUsedFindings(plan, owner.group, [...others, next], [next], setting) : []),
    ...joiningFindings([next], others, owner.group, setting, tested),
  ];
}
