import { occupied } from "../bands/occupied";
import { parityOf } from "../bands/parityOf";
import { rebuildShareOf } from "../bands/workShare";
import { usedShare } from "../box/capacities";
import { bandsOfGroup, dataOfPool, fateOfPool } from "../box/figures";
import { driveOf, drivesOf, groupOf, poolOfGroup } from "../box/find";
import { goneOf, goneIn } from "../box/gone";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed } from "../box/state";
import { isOnGone } from "../data/backup";
import type { Bytes } from "../bytes/bytes";
import { formatBytes } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, Plan, Pool, StepOf } from "../document/plan";
import { bayOf } from "../drives/drive";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { rateTo } from "./backUp";
import { handling, joiningFindings, named } from "./checks";
import { putInPlaceOf } from "./inPlaceOf";
import { checkFit, type Gap, lookUpGap, seatInPlaceOf } from "./fillingGap";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepCost, type StepModule, type StepSetting } from "./stepModule";

type Restoring = StepOf<"restore-drive">;

/**
 * What was on a drive with files of its own, as far as it is known: its share of what is stored in its pool; all of it
 * where nothing is said. In bytes.
 */
export function heldBy(plan: Plan, pool: Pool, group: Group, drive: Drive, rules: BoxRules): Bytes {
  const length = occupied(bandsOfGroup(plan, group, rules)).get(drive.id) ?? 0;
  return Math.round(length * usedShare(pool, dataOfPool(plan, pool, rules)));
}

/** That parity can give the files back: there is some left, and nothing updates it meanwhile. */
function checkParityLeft(plan: Plan, pool: Pool, group: Group, step: Restoring, setting: StepSetting): Finding[] {
  const layout = layoutOf(group.layout);
  if (layout.dedicatedParity === undefined || setting.rules.parityWrites !== "by-schedule")
    return [
      against(
        "block",
        "no-parity-to-restore-from",
        layout.independent && layout.dedicatedParity === undefined
          ? "There is no parity to restore it from. Only a backup brings back what was on it."
          : "Your box fills a new drive by itself from the others: rebuild it.",
        [step.drive],
        layout.nominalTolerance(group.options ?? {}) === 0
          ? undefined
          : {
              label: "Rebuild it",
              command: {
                kind: "replace-step",
                step: step.id,
                by: [{ kind: "rebuild", group: group.id, drive: step.drive, by: step.by }],
              },
            },
      ),
    ];
  const fate = fateOfPool(plan, pool, setting.rules);
  const found: Finding[] = [];
  if (fate.kind === "lost" || (fate.kind === "partly-lost" && fate.lostDrives.includes(step.drive))) {
    const message =
      `More drives are gone than the parity stands in for: what was on ${named(plan, step.drive, setting)} comes ` +
      "back only from a backup.";
    found.push(against("block", "nothing-to-rebuild-from", message, [step.drive]));
  }
  if (!pool.paritySchedule?.paused)
    found.push(
      against(
        "block",
        "schedule-runs",
        "The schedule still runs: its next update would record the loss while you restore. Pause it first.",
        [],
        {
          label: "Pause it first",
          command: { kind: "insert-steps", before: step.id, steps: [{ kind: "pause-schedule", pool: pool.id }] },
        },
      ),
    );
  return found;
}

/** That there is such a backup, and that the drive has files of its own which it could hold. */
function checkBackup(plan: Plan, group: Group, step: Restoring): Finding[] {
  if (!layoutOf(group.layout).independent) {
    const message = "The drives of this group hold no files of their own. Restore the whole pool from the backup.";
    return [against("block", "no-files-of-its-own", message, [step.drive])];
  }
  return plan.backups?.some((backup) => backup.id === step.from && !isOnGone(backup, plan))
    ? [
        against("warn", "back-as-of-the-backup", "What was changed after the backup was made does not come back.", [
          step.drive,
        ]),
      ]
    : [
        against(
          "block",
          "no-such-backup",
          "The backup is not in the plan, or the drive that it is on is gone. Enter it under Data, or choose another.",
        ),
      ];
}

/** That it holds what was on the old one, and goes with the others. */
function checkSize(plan: Plan, gap: Gap, setting: StepSetting): Finding[] {
  const { rules, family } = setting;
  const { pool, group, old, next } = gap;
  const held = heldBy(plan, pool, group, old, rules);
  const { between } = roomOf(next, rules);
  const name = capital(named(plan, next.id, setting));
  if (between < held) {
    const message =
      `${name} is too small by ${formatBytes(held - between, family)}: about ${formatBytes(held, family)} was on ` +
      "the drive that it replaces.";
    return [against("block", "too-small", message, [next.id])];
  }
  // Of drives with files of their own, what is stored has to fit, and not the whole drive.
  const fit = checkFit(plan, gap, setting);
  if (!fit.some(({ code }) => code === "too-small")) return fit;
  const message = `${name} is smaller than the drive that it replaces: what was on it fits, and the pool has less space after.`;
  return [against("note", "usable-falls", message, [next.id])];
}

/** That it is no parity drive, which holds no files. */
function checkHasFiles(plan: Plan, { group, old, next }: Gap, step: Restoring, { rules }: StepSetting): Finding[] {
  if (!parityOf(bandsOfGroup(plan, group, rules)).includes(old.id)) return [];
  const message = "That is a parity drive: it holds no files. Rebuild it instead.";
  return [
    against("block", "is-the-parity-drive", message, [old.id], {
      label: "Rebuild it",
      command: {
        kind: "replace-step",
        step: step.id,
        by: [{ kind: "rebuild", group: group.id, drive: old.id, by: next.id }],
      },
    }),
  ];
}

function check({ plan, tested }: BoxState, step: Restoring, setting: StepSetting): Finding[] {
  const looked = lookUpGap(plan, step, setting);
  if (!looked.ok) return looked.found;
  const { gap } = looked;
  const { pool, group, old, next, others } = gap;
  if (old === next) return [against("block", "drive-taken", "Choose another drive to restore it to.", [step.by])];
  const noFiles = checkHasFiles(plan, gap, step, setting);
  if (noFiles.length > 0) return noFiles;
  return [
    ...(step.from === undefined ? checkParityLeft(plan, pool, group, step, setting) : checkBackup(plan, group, step)),
    ...checkSize(plan, gap, setting),
    ...joiningFindings([next], others, group, setting, tested),
  ];
}

/** What is restored is read from all the others and their parity, or comes over the way to the backup. */
function cost({ plan, backedUp }: BoxState, after: BoxState, step: Restoring, { rules }: StepSetting): StepCost {
  const [pool, group, old] = [poolOfGroup(plan, step.group), groupOf(plan, step.group), driveOf(plan, step.drive)];
  if (!pool || !group || !old) return noCost({});
  const bands = bandsOfGroup(plan, group, rules);
  const held = heldBy(plan, pool, group, old, rules);
  const gone = goneIn(plan);
  const there = group.drives.filter((id) => !gone.has(id));
  const rate = workRate(slowestRate(drivesOf(plan, [...there, step.by])), rebuildShareOf(bands), rules, true);
  if (step.from === undefined)
    return noCost({
      hours: hoursFor(held, rate),
      erased: [step.by],
      work: [
        ...there.map((drive) => ({ drive, reads: Math.min(held, occupied(bands).get(drive) ?? 0), writes: 0 })),
        { drive: step.by, reads: 0, writes: held },
      ],
      online: "slower",
      missing: [step.drive],
      unready: [step.by],
    });
  const parity = parityOf(bands);
  const isLast = goneOf(after.plan, poolOfGroup(after.plan, step.group) ?? pool).length === 0;
  const backup = plan.backups?.find(({ id }) => id === step.from);
  const restored = hoursFor(held, backedUp.get(pool.id) ?? rateTo(backup));
  // Parity is worked out again once the last drive is in its place.
  const anew = parity.length > 0 && isLast ? hoursFor(Math.max(...occupied(bands).values()), rate) : NO_HOURS;
  return noCost({
    hours: addHours(restored, anew),
    erased: [step.by],
    work: [{ drive: step.by, reads: 0, writes: held }],
    online: "slower",
    missing: [step.drive, ...parity],
    unready: [step.by],
    undoable: false,
  });
}

/** The files of a drive that is gone, brought back onto another in its place. */
export const restoreDrive: StepModule<"restore-drive"> = {
  kind: "restore-drive",
  name: "Restore a drive",
  boxWork: () => "restore",
  tells: ({ group, by }, names) => [
    `Give ${names.drive(by)} the kind of file system that the old one had, and the place at which the old one ` +
      "was mounted.",
    `Restore only the files of that one drive of ${names.poolOfGroup(group)}, nothing else.`,
  ],
  paced: true,
  handles: (step) => [step.by],
  label: (step, names) => `Restore ${names.place(step.drive)} to ${names.size(step.by)}`,
  menu: BY_HAND,
  answers: (step) => step.drive,
  ifADriveFails: () =>
    "Stop, and update nothing. What is restored stays; the rest can be restored as long as no more are gone " +
    "than there are parity drives.",
  mayLower: true,
  swaps: (step, plan) => {
    const next = driveOf(plan, step.by);
    return next && bayOf(next) === null ? 1 : 0;
  },
  check,
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      if (!old || !next) return;
      putInPlaceOf(state.plan, plan, old.id, next.id, rules);
      seatInPlaceOf(plan, old, next);
    }),
  cost,
  say: ({ plan }, step, setting) => {
    const backup = plan.backups?.find(({ id }) => id === step.from);
    const from = step.from === undefined ? "the parity" : (backup?.name ?? "a backup");
    return {
      does:
        `${capital(named(plan, step.by, setting))} is formatted and mounted in the place of ` +
        `${named(plan, step.drive, setting)}, and only the files of that one are restored to it from ` +
        `${from}.${handling(setting)}`,
      why:
        step.from === undefined
          ? "What was on it as of the last update of the parity comes back; until then its files cannot be read."
          : "What was on it as of the backup comes back.",
    };
  },
};
