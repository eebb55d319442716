import { usableOfGroup } from "../box/figures";
import { driveOf } from "../box/find";
import { goneIn } from "../box/gone";
import { rulesOfBox } from "../box/rulesOfBox";
import { MiB } from "../bytes/bytes";
import { formatBytes, formatExactBytes, type UnitFamily } from "../bytes/formatBytes";
import type { Command } from "../document/command";
import type { Group, Plan, Pool } from "../document/plan";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import { nameOfDrive, nameOfDriveFirst, shortSize } from "../drives/nameOfDrive";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { counted, plural } from "../words/counted";
import { withArticle } from "../words/inSentence";
import { listOf } from "../words/listOf";
import { placedBy } from "./asPlanned";
import { takeAsRead } from "./asRead";
import type { FoundArray, Recognised } from "./recognise";
import { runningWords } from "./runningWords";

/** Codes by which programs tell what differs between a box and its plan. */
export type DifferenceCode =
  | "drive-missing"
  | "drive-unknown"
  | "other-serial"
  | "array-degraded"
  | "array-running"
  | "not-claimed"
  | "not-grown"
  | "size-differs"
  | "level-differs"
  | "spare-differs";

/** Something in which a box is not as its plan has it. */
export interface Difference {
  code: DifferenceCode;
  /** What is so. */
  message: string;
  /** What it means, in a sentence. */
  means: string;
  /** Ids of the drives concerned. */
  drives: string[];
  /** What goes on from there at a press. */
  mend?: { label: string; command: Command };
  /** Whether what to do stands under "what to do now". */
  leadsToRescue?: true;
}

/** A pool with its arrays, for the beginning of a sentence: "Club (md0)". */
function withArrays(pool: string, arrays: readonly FoundArray[]): string {
  const names = arrays.map(({ printed }) => printed.name).filter((name) => name !== pool);
  return names.length > 0 ? `${pool} (${listOf(names)})` : pool;
}

interface Setting {
  recognised: Recognised;
  /** The box as the plan has it at a moment; null where there is no plan. */
  before: Plan | null;
  family: UnitFamily;
  /** When it was read, as an instant. */
  at: string;
}

const groupsOf = (plan: Plan): { pool: Pool; group: Group }[] =>
  plan.pools.flatMap((pool) => pool.groups.map((group) => ({ pool, group })));

/**
 * Whether what was read is another box than the plan's: it lists none of the drives that the plan has in it.
 *
 * @example isOtherBox(recognised, plan) // true where somebody has pasted the output of another machine
 */
export function isOtherBox({ ids, knowsSerials }: Pick<Recognised, "ids" | "knowsSerials">, before: Plan): boolean {
  const listed = new Set(ids.values());
  const inBox = before.drives.filter((drive) => bayOf(drive) !== null && !drive.toBuy);
  return knowsSerials && inBox.length > 0 && ids.size > 0 && inBox.every((drive) => !listed.has(drive.id));
}

/** The drive in whose place the plan's own next step, which is under way, puts another: it may be out already. */
function goingOut({ recognised, before }: Setting): string | null {
  const places = placedBy(before);
  const isUnderWay = recognised.running.some((body) => "by" in body && body.by === places?.by);
  return places && isUnderWay ? places.drive : null;
}

/** Drives that the plan has in the box and the box does not list, with what stands in their place, if anything. */
function missingDrives(setting: Setting): Difference[] {
  const { recognised, before, family, at } = setting;
  if (!before || !recognised.knowsSerials) return [];
  const out = goingOut(setting);
  const listed = new Set(recognised.ids.values());
  const inPools = new Set(groupsOf(before).flatMap(({ group }) => group.drives));
  const away = before.drives.filter(
    (drive) =>
      !listed.has(drive.id) && drive.id !== out && !isGone(drive) && (bayOf(drive) !== null || inPools.has(drive.id)),
  );
  return away.map((drive): Difference => {
    const other = standsFor(recognised, before, drive.id);
    const next = other === null ? null : driveOf(recognised.plan, other);
    if (next)
      return {
        code: "other-serial",
        message: `In the place of ${nameOfDrive(drive, family)} the box has ${nameOfDrive(next, family)}.`,
        means: "Somebody has put another drive in. The plan can take it over as it is.",
        drives: [drive.id, next.id],
      };
    return {
      code: "drive-missing",
      message: `The box does not list ${nameOfDrive(drive, family)}.`,
      means: inPools.has(drive.id)
        ? "It is loose, dead or pulled, and its pool lacks it."
        : "It is loose, dead or pulled. No pool lacks it.",
      drives: [drive.id],
      mend: {
        label: "Say that it is missing",
        command: { kind: "set-drive-state", drives: [drive.id], state: "missing", since: at },
      },
      ...(inPools.has(drive.id) ? { leadsToRescue: true as const } : {}),
    };
  });
}

/** The drive that the plan does not have and that stands, on the box, where one of the plan's stood. */
function standsFor(recognised: Recognised, before: Plan, drive: string): string | null {
  const owner = groupsOf(before).find(({ group }) => group.drives.includes(drive));
  const now = groupsOf(recognised.plan).find(({ group }) => group.id === owner?.group.id)?.group;
  const rebuilt = recognised.running.find((step) => step.kind === "rebuild" && step.drive === drive);
  if (rebuilt?.kind === "rebuild" && !driveOf(before, rebuilt.by)) return rebuilt.by;
  if (!owner || !now || now.drives.includes(drive)) return null;
  const fresh = now.drives.filter((id) => !driveOf(before, id));
  const lost = owner.group.drives.filter((id) => !now.drives.includes(id));
  return fresh[lost.indexOf(drive)] ?? null;
}

/** Drives that the box lists and the plan does not have. */
function unknownDrives({ recognised, before, family }: Setting, others: readonly Difference[]): Difference[] {
  if (!before || !recognised.knowsSerials) return [];
  const told = new Set(others.flatMap(({ drives }) => drives));
  const fresh = recognised.plan.drives.filter(
    (drive) => !driveOf(before, drive.id) && !told.has(drive.id) && drive.state !== "missing",
  );
  return fresh.map((drive): Difference => {
    const { id: _id, place: _place, ...added } = drive;
    const serial = drive.serial ? ` with the serial number ${drive.serial}` : " without a serial number";
    return {
      code: "drive-unknown",
      message:
        `The box lists ${withArticle(`${shortSize(drive, family)} drive`)}${serial}, which the plan does not ` +
        "have.",
      means: "It has been put in, or the plan was made without it.",
      drives: [drive.id],
      mend: { label: "Add it to the plan", command: { kind: "add-drives", drives: [added] } },
    };
  });
}

/** Drives that the plan takes to be gone and that are there and work. */
function returned({ recognised, before, family, at }: Setting): Difference[] {
  const gone = before ? before.drives.filter(isGone) : [];
  const back = gone.filter((drive) => {
    const now = driveOf(recognised.plan, drive.id);
    return now !== undefined && !isGone(now);
  });
  return back.map((drive): Difference => ({
    code: "drive-unknown",
    message: `The box has ${nameOfDrive(drive, family)} again, and it works.`,
    means: "The plan takes it to be gone.",
    drives: [drive.id],
    mend: {
      label: "Say that it is back",
      command: { kind: "set-drive-state", drives: [drive.id], state: null, since: at },
    },
  }));
}

/** What an array lacks that the plan does not know to be lacking. */
function degraded(setting: Setting): Difference[] {
  const { recognised, before, family, at } = setting;
  const known = new Set([...(before ? goneIn(before) : []), goingOut(setting) ?? ""]);
  const gone = goneIn(recognised.plan);
  return groupsOf(recognised.plan).flatMap(({ pool, group }): Difference[] => {
    const arrays = recognised.arrays.filter((found) => found.group === group.id);
    const lacks = group.drives.filter((id) => gone.has(id) && !known.has(id));
    if (arrays.length === 0 || lacks.length === 0) return [];
    const drives = lacks.flatMap((id) => driveOf(recognised.plan, id) ?? []);
    const failed = drives.filter(({ state }) => state === "failed");
    const words = listOf(drives.map((drive) => nameOfDrive(drive, family)));
    return [
      {
        code: "array-degraded",
        message: `${withArrays(pool.name, arrays)} lacks ${counted(lacks.length, "drive")}: ${words}.`,
        means: "It is less protected than it should be, or not at all.",
        drives: lacks,
        ...(before && failed.length > 0
          ? {
              mend: {
                label: plural(failed.length, "Say that it has failed", "Say that they have failed"),
                command: {
                  kind: "set-drive-state",
                  drives: failed.map(({ id }) => id),
                  state: "failed",
                  since: at,
                } as const,
              },
            }
          : {}),
        leadsToRescue: true,
      },
    ];
  });
}

const runningArrays = ({ recognised, before }: Setting): Difference[] =>
  recognised.arrays.flatMap((found): Difference[] => {
    const { printed, group } = found;
    if (!printed.running) return [];
    const pool = recognised.plan.pools.find((each) => each.groups.some(({ id }) => id === group));
    return [
      {
        code: "array-running",
        message: `${withArrays(pool?.name ?? printed.name, [found])}: ${runningWords(printed.running)}.`,
        means: before
          ? "Leave it alone until it has ended, and read the box again then."
          : "Its drives are busy until it has ended.",
        drives: [...printed.filling, ...printed.joining].flatMap(({ drive }) => recognised.ids.get(drive ?? "") ?? []),
      },
    ];
  });

/** What a group holds on the box, by its arrays. */
const readOf = (arrays: readonly FoundArray[]) => arrays.reduce((sum, { printed }) => sum + printed.bytes, 0);

/** Whether the arrays of a group could be larger on the members that they have. */
function couldGrow({ sizes }: Recognised, arrays: readonly FoundArray[]): number {
  const names = new Set(arrays.map(({ printed }) => printed.name));
  return sizes
    .filter(({ array }) => names.has(array))
    .reduce((sum, each) => sum + each.predictedBytes - each.readBytes, 0);
}

/**
 * What a size may differ by without being told, in bytes: where a plan can write down what arrays keep, nothing; else
 * what the driver may keep of each drive for its own notes.
 */
const allowanceOf = (group: Group): number =>
  layoutOf(group.layout).keepsArrays ? 0 : METADATA_ALLOWANCE * group.drives.length;

/** Measured: 1 to 4 MiB of each drive. */
const METADATA_ALLOWANCE = 4 * MiB;

/** Groups whose size on the box is another than the plan's, or less than their members allow. */
function sizes({ recognised, before, family, at }: Setting): Difference[] {
  return groupsOf(recognised.plan).flatMap(({ pool, group }): Difference[] => {
    const arrays = recognised.arrays.filter((found) => found.group === group.id);
    const read = readOf(arrays);
    // While one is rewritten its size is that of before or after, as the kernel has it.
    if (read === 0 || arrays.some(({ printed }) => printed.running?.kind === "reshape")) return [];
    const names = withArrays(pool.name, arrays);
    const planned = before && groupsOf(before).find((each) => each.group.id === group.id);
    const expected = planned && before ? usableOfGroup(before, planned.group, rulesOfBox(before)) : read;
    const more = couldGrow(recognised, arrays);
    if (more > 0 && (!planned || expected > read))
      return [
        {
          code: "not-claimed",
          message:
            `${names} holds ${formatBytes(read, family)}, and its drives allow ` +
            `${formatBytes(read + more, family)}.`,
          means: "The new space of larger drives is not in use yet.",
          drives: group.drives,
          ...(before
            ? {
                mend: {
                  label: "Plan to take it into use",
                  command: takeAsRead(recognised, at, [{ kind: "claim-space", group: group.id }]),
                },
              }
            : {}),
        },
      ];
    if (Math.abs(expected - read) <= allowanceOf(group)) return [];
    return [
      {
        code: "size-differs",
        message:
          `${names} holds ${formatExactBytes(read)} on the box and ${formatExactBytes(expected)} in the plan: ` +
          `${formatBytes(Math.abs(read - expected), family)} ${read > expected ? "more" : "less"}.`,
        means: "The box cuts its drives in its own way. Set the plan to how the box is, and it reckons with that.",
        drives: group.drives,
      },
    ];
  });
}

/** Groups that are of another layout on the box, of other drives, or not there. */
function levels({ recognised, before, family }: Setting): Difference[] {
  if (!before) return [];
  const now = groupsOf(recognised.plan);
  return groupsOf(before).flatMap(({ pool, group }): Difference[] => {
    const found = now.find((each) => each.group.id === group.id);
    const level = (id: Group["layout"]) => layoutOf(id).shortName;
    const isThere = found && recognised.foundGroups.has(group.id);
    if (!isThere) {
      const listed = new Set(recognised.ids.values());
      if (!recognised.knowsSerials || !group.drives.some((id) => listed.has(id))) return [];
      return [
        {
          code: "level-differs",
          message: `The box shows nothing of ${pool.name}, though drives of it are listed.`,
          means:
            "It is not put together or not mounted, or it has not been made yet. Make nothing new on its " +
            "drives before you know.",
          drives: group.drives,
        },
      ];
    }
    const others = found.group.drives.filter((id) => driveOf(before, id) && !group.drives.includes(id));
    if (found.group.layout === group.layout && others.length === 0 && found.group.drives.length === group.drives.length)
      return [];
    const words = others.flatMap((id) => driveOf(before, id) ?? []).map((drive) => nameOfDriveFirst(drive, family));
    return [
      {
        code: "level-differs",
        message:
          found.group.layout === group.layout
            ? `${pool.name} has ${counted(found.group.drives.length, "drive")} on the box and ` +
              `${group.drives.length} in the ` +
              `plan${words.length > 0 ? `; ${listOf(words)} ${plural(words.length, "is", "are")} among them` : ""}.`
            : `${pool.name} is ${level(found.group.layout)} on the box and ${level(group.layout)} in the plan.`,
        means: "The box has been changed in another way than planned, or further.",
        drives: found.group.drives,
      },
    ];
  });
}

/** Hot spares of a pool: its own, and those of its groups. */
const sparesOf = (pool: Pool | undefined): string[] =>
  pool ? [...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])] : [];

/** Drives that stand by for a pool on the box and not in the plan, or in the plan and not on the box. */
function spares(setting: Setting): Difference[] {
  const { recognised, before, family } = setting;
  const listed = new Set(recognised.ids.values());
  const filled = new Set(recognised.running.flatMap((body) => ("by" in body ? [body.by] : [])));
  return (before?.pools ?? []).flatMap((planned): Difference[] => {
    const arrays = recognised.arrays.filter(({ pool }) => pool === planned.id);
    if (arrays.length === 0 || arrays.some(({ printed }) => !printed.rolesPrinted)) return [];
    const [onBox, inPlan] = [sparesOf(recognised.plan.pools.find(({ id }) => id === planned.id)), sparesOf(planned)];
    const named = (ids: readonly string[]) =>
      ids.flatMap((id) => driveOf(recognised.plan, id) ?? []).map((drive) => nameOfDrive(drive, family));
    const more = onBox.filter((id) => !inPlan.includes(id) && before && driveOf(before, id));
    const fewer = inPlan.filter((id) => !onBox.includes(id) && listed.has(id) && !filled.has(id));
    const told = (drives: string[], message: string, means: string): Difference[] =>
      drives.length > 0 ? [{ code: "spare-differs", message, means, drives }] : [];
    const stand = (ids: readonly string[]) => plural(ids.length, "stands", "stand");
    return [
      ...told(
        more,
        `${capital(listOf(named(more)))} ${stand(more)} by for ${planned.name} on the box, and not in the plan.`,
        "The box takes it by itself when a drive fails, so do not use it for anything else.",
      ),
      ...told(
        fewer,
        `${capital(listOf(named(fewer)))} ${stand(fewer)} by for ${planned.name} in the plan, and not on the box.`,
        "Nothing takes over by itself when a drive fails.",
      ),
    ];
  });
}

/** Volumes whose file system is smaller than they are, or whose size is another than the plan's. */
function volumes({ recognised, before, family, at }: Setting): Difference[] {
  const planned = new Map((before?.pools ?? []).flatMap((pool) => pool.volumes).map((volume) => [volume.id, volume]));
  return recognised.plan.pools.flatMap((pool) =>
    pool.volumes.flatMap((volume): Difference[] => {
      const old = planned.get(volume.id);
      if (!recognised.foundPools.has(pool.id)) return [];
      if (volume.fileSystemBytes !== undefined && (!old || old.fileSystemBytes === undefined))
        return [
          {
            code: "not-grown",
            message:
              `The file system of ${volume.name} has ${formatBytes(volume.fileSystemBytes, family)} of the ` +
              `${formatBytes(volume.bytes, family)} that its volume has.`,
            means: "It has not been grown: the rest cannot be used yet.",
            drives: [],
            ...(before && old
              ? {
                  mend: {
                    label: "Plan to grow it",
                    command: takeAsRead(recognised, at, [
                      { kind: "grow-file-system", pool: pool.id, volume: volume.id },
                    ]),
                  },
                }
              : {}),
          },
        ];
      if (!old || old.bytes === volume.bytes) return [];
      return [
        {
          code: "size-differs",
          message:
            `The volume ${volume.name} has ${formatBytes(volume.bytes, family)} on the box and ` +
            `${formatBytes(old.bytes, family)} in the plan.`,
          means: "Set the plan to how the box is, and it reckons with that.",
          drives: [],
        },
      ];
    }),
  );
}

/**
 * In what a box is not as a plan has it at a moment; without a plan, what is not as it should be by itself.
 *
 * @param before the box at that moment
 * @param at when the box was read, as an instant
 * @example differencesOf(recognised, plan, "TB", "2026-11-26T10:00Z").map(({ code }) => code)
 * // ["drive-missing", "array-degraded"]
 */
export function differencesOf(
  recognised: Recognised,
  before: Plan | null,
  family: UnitFamily,
  at: string,
): Difference[] {
  const setting = { recognised, before, family, at };
  const away = missingDrives(setting);
  const told = new Set(away.flatMap(({ drives }) => drives));
  const lacking = degraded(setting).filter(
    ({ drives, mend }) => mend !== undefined || !before || !drives.every((id) => told.has(id)) || away.length === 0,
  );
  return [
    ...away,
    ...unknownDrives(setting, away),
    ...returned(setting),
    ...lacking,
    ...runningArrays(setting),
    ...levels(setting),
    ...spares(setting),
    ...sizes(setting),
    ...volumes(setting),
  ];
}
