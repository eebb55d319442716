import { fateOfPool } from "../box/figures";
import { driveOf } from "../box/find";
import { goneIn } from "../box/gone";
import { bytesOn, currentBackups } from "../data/backup";
import { backupsOf, dataSetsIn } from "../data/stored";
import type { Drive, Step } from "../document/plan";
import { nameOfDrive } from "../drives/nameOfDrive";
import { formatBytes } from "../bytes/formatBytes";
import { layoutOf } from "../layouts/registry";
import { moduleOf } from "../steps/registry";
import { plainDayWords } from "../time/dateWords";
import { counted } from "../words/counted";
import { listOf } from "../words/listOf";
import { ownValue } from "../records/ownValue";
import { backingUp } from "./afterwards";
import { replacement } from "./bringingBack";
import { type Gap, gapsOf } from "./gaps";
import { nameIn, type Course, type Draft } from "./drafts";
import type { Instead, RescueChoices, RescueSetting } from "./rescue";
import { type Supplies, suppliesFor } from "./supplies";

// What is done where more drives are gone than the layout bears.

/**
 * What the backups would bring back of a pool, each in a sentence, and what is in none that can be counted on.
 *
 * @example aboutBackups(setting)
 * // ["Box at home holds X-rays (1.20 TB), at most 7 days old.", "No current backup holds Films: that would be
 * // missing."]
 */
export function aboutBackups(setting: RescueSetting): string[] {
  const { plan, pool, family, day } = setting;
  const sets = dataSetsIn(plan, pool.id);
  if (sets.length === 0)
    return [
      "The plan does not say what is stored, nor where else it is. Look for every copy that you may have: a " +
        "backup drive, another computer, a phone, a service.",
    ];
  const all = backupsOf(setting.plan, setting.pool.id).map((backup) => {
    const held = sets.filter((set) => backup.dataSets.includes(set.id));
    const tested = backup.lastVerified ? `last tested on ${plainDayWords(backup.lastVerified)}` : "never tested";
    const size = formatBytes(bytesOn({ dataSets: held.map(({ id }) => id), keepsVersions: false }, sets), family);
    return (
      `${backup.name} holds ${listOf(held.map(({ name }) => name))} (${size}), at most ` +
      `${counted(backup.everyDays, "day")} old, ${tested}.`
    );
  });
  const bare = sets.filter((set) => currentBackups(plan, set, day).length === 0);
  return [
    ...all,
    ...(bare.length > 0
      ? [`No backup that can be counted on holds ${listOf(bare.map(({ name }) => name))}: that would be missing.`]
      : []),
  ];
}

/** The drive that is gone most lately: it holds the newest state. */
function lastGone(setting: RescueSetting): Drive | undefined {
  const dead = gapsOf(setting).map(({ old }) => old);
  const missing = dead.find((drive) => drive.state === "missing");
  const dated = dead
    .filter((drive) => drive.since !== undefined)
    .sort((a, b) => ((a.since ?? "") < (b.since ?? "") ? 1 : -1));
  return missing ?? dated[0];
}

/** What may still bring the pool back, before anything is given up. */
function tries(setting: RescueSetting): Draft[] {
  const { family } = setting;
  const last = lastGone(setting);
  const which = last
    ? last.state === "missing"
      ? `Begin with ${nameOfDrive(last, family)}: a drive that is only loose brings everything back.`
      : `Begin with ${nameOfDrive(last, family)}, which failed last and holds the newest state.`
    : "Begin with the one that failed last: it holds the newest state.";
  return [
    {
      what: "stop",
      does: "Stop everything that writes, and leave the box as it is. Create, initialise and format nothing.",
      why: "As long as nothing is written to these drives, some of it may still be brought back.",
    },
    {
      what: "loose",
      does:
        `Look whether one of the drives can be brought back. ${which} Push it, its cable and its power plug ` +
        "home, once.",
      why: "With one drive fewer gone, the data can perhaps be read again. Then say here that it is back.",
    },
    {
      what: "copy-dead",
      does:
        "A drive that was thrown out for a few bad spots can often be read with a copying tool, onto another of " +
        "at least its size. If what is on it is worth much and there is no backup, give the drives to people who " +
        "do that for a living, and try nothing more.",
      why: "Each try wears a dying drive, and the first is the best.",
    },
    {
      what: "backups",
      does: "Look at your backups before you give anything up.",
      why: "They decide what comes back.",
    },
  ];
}

/** Whether a step of the plan makes a lost pool again already. */
const restores = (step: Step, pool: string): boolean =>
  !step.disabled && moduleOf(step).restoresLost === true && "pool" in step && step.pool === pool;

/** A pool of which nothing can be read: tried for once more, then made anew and filled from a backup. */
export function courseOfLost(setting: RescueSetting, instead: ReadonlyMap<string, Instead>): Course {
  const { pool } = setting;
  const supplies = suppliesFor(setting);
  const [first] = pool.groups;
  if (!first) return { drafts: [], buys: [] };
  const gone = goneIn(setting.plan);
  const come: string[] = [];
  const acts = gapsOf(setting).flatMap((gap) => {
    const { next, drafts } = replacement(setting, gap, instead.get(gap.old.id) ?? { buy: true }, supplies);
    if (next) come.push(next.id);
    return drafts;
  });
  const drives = [...pool.groups.flatMap((group) => group.drives).filter((id) => !gone.has(id)), ...come];
  const has = backupsOf(setting.plan, setting.pool.id).length > 0;
  const planned = setting.plan.steps.find((step) => restores(step, pool.id));
  return {
    drafts: [
      ...tries(setting),
      ...(planned ? [] : acts),
      {
        what: "new-pool",
        does: has
          ? "Only then make the pool again, and restore it from the backup."
          : "Only when nothing else is left to try, make the pool again, empty.",
        why: has ? "What was changed after the backup is not in it." : "What was on it is gone then for good.",
        step: planned ?? {
          kind: "rebuild-from-backup",
          pool: pool.id,
          layout: first.layout,
          drives,
          ...(first.options && !layoutOf(first.layout).dedicatedParity ? { options: first.options } : {}),
        },
      },
      ...backingUp(setting),
    ],
    buys: planned ? [] : supplies.buys,
  };
}

/** What was on a lost drive brought back from a backup; given up where none holds it. */
function restoreLost(
  setting: RescueSetting,
  gap: Gap,
  instead: ReadonlyMap<string, Instead>,
  choices: RescueChoices,
  supplies: Supplies,
): Draft[] {
  const { plan, family } = setting;
  const name = nameOfDrive(gap.old, family);
  const from = ownValue(choices.from, gap.old.id) ?? backupsOf(setting.plan, setting.pool.id)[0]?.id;
  if (from === undefined) return [givenUp(name)];
  const { next, drafts } = replacement(setting, gap, instead.get(gap.old.id) ?? { buy: true }, supplies);
  if (!next) return drafts;
  const backup = plan.backups?.find(({ id }) => id === from)?.name ?? "the backup";
  return [
    ...drafts,
    {
      what: "restore",
      does: `Put ${nameIn(next, family)} in the place of ${name}, and restore what was on it from ${backup}.`,
      why: "What was changed after the backup does not come back.",
      step: { kind: "restore-drive", group: gap.group.id, drive: gap.old.id, by: next.id, from },
    },
  ];
}

/** A parity drive that is gone besides: it holds no files, and is worked out again. */
function rebuildParity(
  setting: RescueSetting,
  gap: Gap,
  instead: ReadonlyMap<string, Instead>,
  supplies: Supplies,
): Draft[] {
  const { next, drafts } = replacement(setting, gap, instead.get(gap.old.id) ?? { buy: true }, supplies);
  if (!next) return drafts;
  return [
    ...drafts,
    {
      what: "rebuild",
      does: `Put ${nameIn(next, setting.family)} in the place of ${nameOfDrive(gap.old, setting.family)}.`,
      why: "The parity is worked out again.",
      step: { kind: "rebuild", group: gap.group.id, drive: gap.old.id, by: next.id },
    },
  ];
}

/** Files that no backup holds. */
const givenUp = (name: string): Draft => ({
  what: "given-up",
  does:
    `No backup in the plan holds what was on ${name}. Enter one under Data, if there is one; otherwise put an ` +
    "empty drive in its place, or take it out of the pool.",
  why: "Without a backup nothing brings those files back. The others keep what is theirs.",
});

/**
 * A pool of drives with files of their own, of which some are lost: the others stay as they are, and those come back
 * from a backup where there is one.
 */
export function courseOfPartlyLost(
  setting: RescueSetting,
  instead: ReadonlyMap<string, Instead>,
  choices: RescueChoices,
): Course {
  const { plan, pool, rules, family } = setting;
  const fate = fateOfPool(plan, pool, rules);
  const lost = new Set(fate.kind === "partly-lost" ? fate.lostDrives : []);
  const supplies = suppliesFor(setting);
  const acts = gapsOf(setting).flatMap((gap) =>
    lost.has(gap.old.id)
      ? restoreLost(setting, gap, instead, choices, supplies)
      : rebuildParity(setting, gap, instead, supplies),
  );
  const can = new Set([...lost].flatMap((id) => driveOf(plan, id) ?? []).map((drive) => nameOfDrive(drive, family)));
  return {
    drafts: [
      ...tries(setting).filter(({ what }) => what !== "stop"),
      {
        what: "rest",
        does: "Leave the other drives as they are: what is on them can be read.",
        why: `Only what was on ${listOf(can)} is lost.`,
      },
      ...acts,
      ...backingUp(setting),
    ],
    buys: supplies.buys,
  };
}
