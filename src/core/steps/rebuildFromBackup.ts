import { inText } from "../layouts/inText";
import { leaveBay } from "../box/bays";
import { storedIn } from "../box/capacities";
import { fateOfPool, usableOfPool } from "../box/figures";
import { driveOf, drivesOf, poolOf } from "../box/find";
import { goneIn } from "../box/gone";
import { groupOfDrive, isFree } from "../box/members";
import { rulesOfBox } from "../box/rulesOfBox";
import { type BoxState, changed, takeIn } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import type { Box, Plan, StepOf } from "../document/plan";
import { notBackedUp } from "../data/backup";
import { backupsOf, dataSetsIn } from "../data/stored";
import { isGone } from "../drives/driveState";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { ruleSetOf, rulesOf } from "../rules/ruleSets";
import { hoursFor, longerHours, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { counted, plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { drivesInWords, joiningFindings, layoutFindings, missingDrives, missingPool } from "./checks";
import { rateTo } from "./backUp";
import { fillOf } from "./makeGroup";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";

/** Another box: the pool's drives go into its bays, and everything else out of the old one onto the shelf. */
function moveInto(plan: Plan, box: Box, drives: readonly string[]): void {
  plan.box = { ...box };
  for (const drive of plan.drives) if (!drives.includes(drive.id)) drive.place = { shelf: true };
  drives.forEach((id, i) => {
    const drive = driveOf(plan, id);
    if (!drive) return;
    drive.place = { bay: i + 1 };
    delete drive.contents;
    delete drive.toBuy;
  });
}

const apply = (state: BoxState, step: StepOf<"rebuild-from-backup">): BoxState =>
  changed(state, (plan) => {
    const pool = poolOf(plan, step.pool);
    if (!pool) return;
    const id = pool.groups[0]?.id ?? "g1";
    // Those that are gone and are no part of it leave their bays before others need them.
    for (const drive of plan.drives)
      if (isGone(drive) && !step.drives.includes(drive.id) && groupOfDrive(state.plan, drive.id)?.pool.id === pool.id)
        leaveBay(drive);
    if (step.box) moveInto(plan, step.box, step.drives);
    else step.drives.forEach((drive) => takeIn(plan, drive));
    pool.spares = step.box ? [] : pool.spares.filter((drive) => !step.drives.includes(drive));
    if (step.box) delete pool.helpers;
    pool.groups = [{ id, layout: step.layout, drives: [...step.drives], options: { ...step.options } }];
    for (const volume of pool.volumes) delete volume.fileSystemBytes;
  });

/** That the drives are there and free, that there are bays for them, and that no other pool is left behind. */
function checkDrives(plan: Plan, step: StepOf<"rebuild-from-backup">, setting: StepSetting): Finding[] {
  const others = step.drives.filter(
    (drive) => groupOfDrive(plan, drive)?.pool.id !== step.pool && !isFree(plan, drive),
  );
  const found = missingDrives(plan, step.drives);
  if (others.length > 0) {
    const message =
      `${capital(drivesInWords(plan, others, setting))} ${plural(others.length, "is", "are")} in use elsewhere ` +
      "at this moment.";
    found.push(against("block", "drive-taken", message, others));
  }
  if (step.box && plan.pools.length > 1) {
    const message =
      "The box has other pools, which would be left behind. Move them in plans of their own, or dissolve them first.";
    found.push(against("block", "other-pools", message));
  }
  const { bays } = step.box ?? plan.box;
  if (step.drives.length > bays)
    found.push(
      against(
        "block",
        "no-free-bay",
        `The box has ${counted(bays, "bay")} for ${counted(step.drives.length, "drive")}.`,
      ),
    );
  return found;
}

/** What the backups of the plan bring back of a pool that is lost, and what they do not. */
function backOfLost(plan: Plan, pool: string, day: string | null): Finding[] {
  const sets = dataSetsIn(plan, pool);
  const bare = notBackedUp(plan, sets, day);
  const message =
    sets.length === 0
      ? "The plan does not say what was stored, nor where else it is: what comes back depends on your backups."
      : bare.length === 0
        ? "All that was stored comes back as of the last backup; what was changed since does not."
        : `No current backup holds ${listOf(bare.map((set) => set.name))}: that does not come back. The rest ` +
          "comes back as of its last backup.";
  return [against("warn", "back-as-of-the-backup", message)];
}

/** That there is a full backup to bring the data back from. */
function checkBackup(state: BoxState, step: StepOf<"rebuild-from-backup">, { rules, day }: StepSetting): Finding[] {
  if (state.backedUp.has(step.pool)) return [];
  const pool = poolOf(state.plan, step.pool);
  // Of what cannot be read any more no new backup is made: those that there are decide what comes back.
  if (pool && fateOfPool(state.plan, pool, rules).kind === "lost") return backOfLost(state.plan, step.pool, day);
  const message =
    "Everything in the pool is erased, and the plan makes no full backup first. Add one before this step.";
  return [
    against("block", "no-backup", message, [], {
      label: "Back up first",
      command: {
        kind: "insert-steps",
        before: step.id,
        steps: [{ kind: "back-up", pool: step.pool, to: "a destination of your choice" }],
      },
    }),
  ];
}

/** That the volumes fit into the new pool. */
function checkVolumes(state: BoxState, step: StepOf<"rebuild-from-backup">, there: StepSetting): Finding[] {
  const { plan } = apply(state, step);
  const then = poolOf(plan, step.pool);
  const usable = then ? usableOfPool(plan, then, there.rules) : 0;
  const asked = (then?.volumes ?? []).reduce((sum, volume) => sum + volume.bytes, 0);
  if (asked <= usable) return [];
  const message =
    `The volumes have ${formatBytes(asked, there.family)}, and the new pool holds ` +
    `${formatBytes(usable, there.family)}. Make them smaller first, or choose another layout.`;
  return [against("block", "volumes-do-not-fit", message)];
}

function check(state: BoxState, step: StepOf<"rebuild-from-backup">, setting: StepSetting): Finding[] {
  const { plan, tested } = state;
  if (!poolOf(plan, step.pool)) return missingPool(plan, step.pool);
  // What a box offers is asked of the one in which the pool is made.
  const there: StepSetting = step.box ? { ...setting, rules: rulesOf(step.box.rules) } : setting;
  const found = [
    ...checkDrives(plan, step, setting),
    ...layoutFindings(step, step.drives.length, there),
    ...checkBackup(state, step, setting),
  ];
  if (found.some((finding) => finding.severity === "block")) return found;
  const joining = drivesOf(
    plan,
    step.drives.filter((drive) => isFree(plan, drive)),
  );
  return [
    ...found,
    ...checkVolumes(state, step, there),
    against(
      "warn",
      "backup-is-only-copy",
      "From the erasing until everything is copied back, the backup is the only copy. Test it before, and keep " +
        "a second one of what cannot be had again.",
    ),
    ...joiningFindings(joining, [], step, there, tested),
  ];
}

/** The pool made anew with another layout, and filled from a backup. Everything on it is erased in between. */
export const rebuildFromBackup: StepModule<"rebuild-from-backup"> = {
  kind: "rebuild-from-backup",
  name: "Make the pool again and restore it from a backup",
  boxWork: () => "restore",
  tells: ({ pool, layout, drives, box }, names) => [
    box
      ? `Put the drives into ${box.name || "the other box"}: what is on them is erased there.`
      : `Delete ${names.pool(pool)} on the box: what is on its drives is gone then.`,
    `Make it again with ${names.layout(layout)} of ${names.drives(drives)}.`,
    "Start restoring all of it from the backup.",
  ],
  paced: true,
  handles: (step) => step.drives,
  // Another box is set up where it stands.
  attention: (step) => (step.box ? "box" : null),
  label: (step) => `New pool: ${layoutOf(step.layout).shortName}, from the backup`,
  restoresLost: true,
  ifADriveFails: () => "The backup is whole: begin again with another drive, and leave the backup unplugged meanwhile.",
  menu: BY_HAND,
  mayLower: true,
  check,
  apply,
  cost: ({ plan, backedUp }, after, step) => {
    const pool = poolOf(plan, step.pool);
    const stored = pool ? storedIn(pool) : 0;
    const restore = hoursFor(Math.max(stored, 4e10), backedUp.get(step.pool) ?? rateTo(backupsOf(plan, step.pool)[0]));
    const [group] = poolOf(after.plan, step.pool)?.groups ?? [];
    const there = rulesOfBox(after.plan);
    const fill = group ? fillOf(after.plan, group, there) : null;
    return noCost({
      // What is brought back is written while the new group is filled for the first time.
      hours: longerHours(restore, fill?.hours ?? NO_HOURS),
      ...(fill && group ? { filling: group.id, work: fill.work } : {}),
      // What has failed or is not there is not erased with the others.
      erased: [...new Set([...(pool?.groups.flatMap((group) => group.drives) ?? []), ...step.drives])].filter(
        (id) => !goneIn(plan).has(id),
      ),
      online: "offline",
      offline: restore,
      onlyInBackup: step.pool,
      undoable: false,
    });
  },
  say: ({ plan }, step, setting) => ({
    does:
      `${poolOf(plan, step.pool)?.name ?? "The pool"} is erased and made again ` +
      `${step.box ? `in ${step.box.name || "another box"} (${ruleSetOf(step.box.rules).name}) ` : ""}with ` +
      `${inText(layoutOf(step.layout))} over ${drivesInWords(plan, step.drives, setting)}, then filled from the ` +
      "backup.",
    why: step.box
      ? "Another kind of box cannot read the pool of this one: its data goes through a backup."
      : "There is no way to this layout that keeps the data in place.",
  }),
};
