import { inText } from "../layouts/inText";
import { underParity } from "../bands/underParity";
import { storedIn } from "../box/capacities";
import { usableOfPool } from "../box/figures";
import { driveOf, poolOf } from "../box/find";
import { isFree } from "../box/members";
import type { BoxState } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import { notBackedUp } from "../data/backup";
import { dataSetsIn } from "../data/stored";
import type { Drive, GroupOptions, LayoutId, Plan } from "../document/plan";
import { checkContents } from "../drives/checks/contents";
import { checkHealth } from "../drives/checks/health";
import { checkMixing } from "../drives/checks/mixing";
import { checkTechnology } from "../drives/checks/technology";
import { bayOf } from "../drives/drive";
import { nameOfDrive, nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { IF_WRONG } from "../rules/ifWrong";
import { counted, oneOrMany, plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { against, type StepSetting } from "./stepModule";

/** That the drives are in the plan at all. */
export function missingDrives(plan: Plan, ids: readonly string[]): Finding[] {
  return ids
    .filter((id) => !driveOf(plan, id))
    .map((id) =>
      against(
        "block",
        "no-such-drive",
        `The drive “${id}” is not there at this moment. Add it to the shelf, or choose another.`,
      ),
    );
}

/** That drives which are to join are free, and that there is a bay for each. */
export function notFree(plan: Plan, ids: readonly string[], { family }: StepSetting): Finding[] {
  const busy = ids.filter((id) => driveOf(plan, id) && !isFree(plan, id));
  if (new Set(ids).size < ids.length)
    return [
      against("block", "named-twice", "A drive is named twice in this step. Choose different drives.", [
        ...new Set(ids),
      ]),
    ];
  const taken = busy.map((id) =>
    against(
      "block",
      "drive-taken",
      `${nameOfDriveFirst(driveOf(plan, id) as Drive, family)} is in use at this moment. Choose a free drive, ` +
        "or remove it first.",
      [id],
    ),
  );
  const coming = ids.filter((id) => {
    const drive = driveOf(plan, id);
    return drive !== undefined && bayOf(drive) === null;
  });
  const free = Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter(
    (bay) => !plan.drives.some((drive) => bayOf(drive) === bay),
  ).length;
  if (coming.length > free)
    taken.push(
      against(
        "block",
        "no-free-bay",
        free === 0
          ? "Every bay is taken at this moment. Pull a drive first, or replace one."
          : `Only ${oneOrMany(free, "1 bay is", "bays are")} free at this moment, for ` +
              `${counted(coming.length, "drive")}.`,
        coming,
      ),
    );
  return taken;
}

/** What of a group, or of a step that makes one, decides how it lies on its drives. */
type LaidOutAs = { layout: LayoutId; options?: GroupOptions };

/**
 * What is to be known of a drive before it is put to use, whatever as: its health, what is on it, and that it comes
 * without a test. A test that is planned before counts.
 */
export function beforeUse(
  drives: readonly Drive[],
  { rules, family }: StepSetting,
  tested: ReadonlySet<string>,
): Finding[] {
  const untested = drives.filter((drive) => !tested.has(drive.id) && drive.medium === "hdd");
  const [first] = untested;
  const own = drives.flatMap((drive) => [
    ...checkHealth(drive, family, tested.has(drive.id) ? "joins-tested" : "joins"),
    ...checkContents(drive, rules, family),
  ]);
  if (!first) return own;
  const which = untested.length === 1 ? nameOfDriveFirst(first, family) : `${untested.length} drives`;
  const message =
    `${which} ${plural(untested.length, "joins", "join")} without a test. An extended self-test finds a bad ` +
    "drive before your data is on it.";
  return [
    ...own,
    against(
      "note",
      "not-tested",
      message,
      untested.map((drive) => drive.id),
    ),
  ];
}

/** The same of drives that join others in a group, and how they go together. */
export function joiningFindings(
  drives: readonly Drive[],
  members: readonly Drive[],
  group: LaidOutAs,
  setting: StepSetting,
  tested: ReadonlySet<string>,
): Finding[] {
  const { rules, family } = setting;
  // Asked only of drives that it matters for: the bands have to be laid out for it.
  const parity =
    drives.some((drive) => drive.shingled) &&
    underParity(layOutGroup({ layout: group.layout, options: group.options ?? {} }, [...members, ...drives], rules));
  const ids = new Set(drives.map((drive) => drive.id));
  const make = drives.flatMap((drive) => checkTechnology(drive, parity, rules, family));
  const mixing = checkMixing([...members, ...drives], rules, family).filter((finding) =>
    finding.drives.some((id) => ids.has(id)),
  );
  return [...beforeUse(drives, setting, tested), ...make, ...mixing];
}

/** That the box offers the layout, and that it can be made of so many drives. */
export function layoutFindings({ layout, options = {} }: LaidOutAs, count: number, { rules }: StepSetting): Finding[] {
  const found: Finding[] = [];
  if (!rules.layouts.includes(layout))
    found.push(
      against("block", "layout-not-offered", `Your box does not offer ${inText(layoutOf(layout))}. ${IF_WRONG}`),
    );
  const wrong = wrongCount(layoutOf(layout), count, rules, options);
  if (wrong)
    found.push(
      against(
        "block",
        "wrong-drive-count",
        `${layoutOf(layout).shortName} cannot be made of ${counted(count, "drive")}. ${wrong}`,
      ),
    );
  return found;
}

/** That the pool is there. */
export function missingPool(plan: Plan, id: string): Finding[] {
  return poolOf(plan, id)
    ? []
    : [
        against(
          "block",
          "no-such-pool",
          "The pool is not there at this moment: a step before makes it, or unmakes it.",
        ),
      ];
}

/** That what the volumes have still fits after a step that lowers what the pool holds. */
export function volumesFit(before: BoxState, after: BoxState, pool: string, { rules, family }: StepSetting): Finding[] {
  const then = poolOf(after.plan, pool);
  if (!then) return [];
  const asked = then.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
  const usable = usableOfPool(after.plan, then, rules);
  if (asked > usable)
    return [
      against(
        "block",
        "volumes-do-not-fit",
        `The volumes of ${then.name} have ${formatBytes(asked, family)}, and only ` +
          `${formatBytes(usable, family)} would be left. ` +
          (rules.shrinkVolumes
            ? "Shrink a volume first."
            : "Your box cannot shrink volumes: rebuild from a backup, or keep more drives."),
      ),
    ];
  const pooled = poolOf(before.plan, pool);
  if (pooled && usable < usableOfPool(before.plan, pooled, rules))
    return [against("note", "usable-falls", `Usable space falls to ${formatBytes(usable, family)}.`)];
  return [];
}

/** A rewrite of what is stored without a full backup before it. */
export function withoutBackup(state: BoxState, pool: string, what: string, { day }: StepSetting): Finding[] {
  const there = poolOf(state.plan, pool);
  if (!there || state.backedUp.has(pool) || (there.volumes.length > 0 && storedIn(there) === 0)) return [];
  const sets = dataSetsIn(state.plan, pool);
  const wanted = sets.filter((set) => set.worth !== "replaceable");
  if (sets.length > 0 && notBackedUp(state.plan, wanted, day).length === 0) return [];
  return [
    against(
      "warn",
      "no-backup",
      `${what} rewrites all that is stored. A power cut or a failed drive while it runs can cost everything. ` +
        "Back up first, and use a battery supply (UPS).",
    ),
  ];
}

/** How a drive is put in or taken out, by the box's rules: empty where it stays online. */
export function handling({ rules }: StepSetting): string {
  return rules.swapping === "hot-swap"
    ? ""
    : rules.swapping === "power-off"
      ? " Switch the box off to change drives."
      : " Stop the pool to change drives.";
}

/** "the 4 TB drive in bay 1 (serial …)" of an id, at a state. */
export function named(plan: Plan, id: string, { family }: StepSetting): string {
  const drive = driveOf(plan, id);
  return drive ? nameOfDrive(drive, family) : "a drive that is not there";
}

export const drivesInWords = (plan: Plan, ids: readonly string[], setting: StepSetting): string =>
  listOf(ids.map((id) => named(plan, id, setting)));
