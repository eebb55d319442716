import { usedShare } from "../box/capacities";
import { dataOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { isAvailable } from "../box/members";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed, takeIn } from "../box/state";
import type { UnitFamily } from "../bytes/formatBytes";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import { formatBytes, formatExactBytes } from "../bytes/formatBytes";
import { dataSetsOnDrive, storedOnDrive } from "../data/stored";
import type { Drive, Group, LayoutId, Plan, Pool, StepOf } from "../document/plan";
import { fileSystemOn } from "../drives/drive";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";
import { REBUILD_SHARE } from "../drives/rates";
import { roomOf } from "../drives/room";
import { isSeparate } from "../layouts/isSeparate";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import type { Finding } from "../findings/finding";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { drivesInWords, joiningFindings, layoutFindings, missingDrives, named, notFree, volumesFit } from "./checks";
import type { StepOffer } from "./stepMenu";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";

type MirrorStep = StepOf<"mirror-drive">;

const holdersOf = (step: MirrorStep): string[] => [step.drive, ...(step.also ?? [])];
const layoutIn = (step: MirrorStep): LayoutId => (step.also && step.also.length > 0 ? "mirror-onto-one" : "raid1");

/** The group of separate drives that is mirrored in place: the step names it, and mirrors each of its drives. */
function separateGroup(plan: Plan, step: MirrorStep): { pool: Pool; group: Group } | null {
  const pool = plan.pools.find((each) => each.id === step.pool);
  const group = pool?.groups.find((each) => each.id === step.group);
  const holders = holdersOf(step);
  return pool &&
    group !== undefined &&
    isSeparate(layoutOf(group.layout)) &&
    group.drives.length === holders.length &&
    holders.every((id) => group.drives.includes(id))
    ? { pool, group }
    : null;
}

/** How far a file system that is mirrored reaches: over all that the box leaves of its drive, or as it was shrunk. */
const reachOf = (drive: Drive, { rules }: StepSetting): number =>
  Math.min(roomOf(drive, rules).between, drive.fileSystemBytes ?? Infinity);

/** Holders whose file systems do not fill them are taken in as far as these reach. */
function reachIn(plan: Plan, step: MirrorStep, setting: StepSetting): Pick<Group, "reach"> {
  const shrunk = drivesOf(plan, holdersOf(step)).filter((drive) => drive.fileSystemBytes !== undefined);
  return shrunk.length === 0
    ? {}
    : { reach: Object.fromEntries(shrunk.map((drive) => [drive.id, reachOf(drive, setting)])) };
}

/** What is known of the data on each holder goes along with it, as a volume of its own. For use inside `changed`. */
function ownVolumes(plan: Plan, step: MirrorStep, setting: StepSetting): Pool["volumes"] {
  const taken = new Set(plan.pools.flatMap((pool) => pool.volumes.map(({ id }) => id)));
  return drivesOf(plan, holdersOf(step)).flatMap((drive) => {
    const sets = dataSetsOnDrive(plan, drive.id);
    if (sets.length === 0) return [];
    let n = 1;
    while (taken.has(`v${n}`)) n += 1;
    const id = `v${n}`;
    taken.add(id);
    const usedBytes = storedOnDrive(plan, drive.id);
    for (const set of sets) {
      set.volume = id;
      delete set.drive;
    }
    const name = drive.label || drive.contents?.detail || "Data";
    return [{ id, name, bytes: floorTo(reachOf(drive, setting), MiB), fileSystem: "none" as const, usedBytes }];
  });
}

function apply(state: BoxState, step: MirrorStep, setting: StepSetting): BoxState {
  const inPlace = separateGroup(state.plan, step) !== null;
  return changed(state, (plan) => {
    takeIn(plan, step.by);
    const drives = [...holdersOf(step), step.by];
    if (inPlace) {
      const group = plan.pools.find((pool) => pool.id === step.pool)?.groups.find((each) => each.id === step.group);
      if (group) Object.assign(group, { layout: layoutIn(step), drives, ...reachIn(plan, step, setting) });
      return;
    }
    holdersOf(step).forEach((drive) => takeIn(plan, drive));
    plan.pools.push({
      id: step.pool,
      name: step.name,
      groups: [{ id: step.group, layout: layoutIn(step), drives, options: {}, ...reachIn(plan, step, setting) }],
      spares: [],
      volumes: ownVolumes(plan, step, setting),
    });
  });
}

const neededFor = (plan: Plan, step: MirrorStep, setting: StepSetting): number =>
  drivesOf(plan, holdersOf(step)).reduce((sum, drive) => sum + reachOf(drive, setting), 0);

/** Of a file system of which nobody says what is stored on it, no more than this share is taken for free. */
const A_LITTLE = 0.01;

/** That the drive which is mirrored onto is large enough, to the byte; and how one file system can be made smaller. */
function tooSmall(plan: Plan, step: MirrorStep, mirror: Drive, setting: StepSetting): Finding[] {
  const short = neededFor(plan, step, setting) - roomOf(mirror, setting.rules).between;
  if (short <= 0) return [];
  const name = capital(named(plan, step.by, setting));
  // The one with most room left over what is known to be on it.
  const free = (drive: Drive) => reachOf(drive, setting) - storedOnDrive(plan, drive.id);
  const [freest] = drivesOf(plan, holdersOf(step)).sort((a, b) => free(b) - free(a));
  const reach = freest ? reachOf(freest, setting) : 0;
  const bytes = Math.max(0, floorTo(reach - short, MiB));
  const stored = freest ? storedOnDrive(plan, freest.id) : 0;
  const canShrink = freest !== undefined && bytes > stored && (stored > 0 || reach - bytes <= reach * A_LITTLE);
  const message = `${name} is too small by ${formatExactBytes(short)} for what it is to mirror.`;
  if (!canShrink) return [against("block", "too-small", `${message} Choose a larger one.`, [step.by])];
  const by = floorTo(reach - bytes + MiB - 1, MiB);
  return [
    against(
      "block",
      "too-small",
      `${message} Choose a larger one, or make a file system smaller by that first.`,
      [step.by],
      {
        label:
          `Shrink the file system of ${nameOfDrive(freest, setting.family)} by ` +
          `${formatBytes(by, setting.family)} first`,
        command: {
          kind: "insert-steps",
          before: step.id,
          steps: [{ kind: "shrink-file-system", drive: freest.id, bytes }],
        },
      },
    ),
  ];
}

/**
 * How much of what is mirrored is copied: all of it, or what is used, as the box fills new groups; where it fills none,
 * as it rebuilds. Of drives in no pool it is not known what is used.
 */
function copiedShare(plan: Plan, step: MirrorStep, { rules }: StepSetting): number {
  const owner = separateGroup(plan, step);
  const usedOnly = rules.firstFill === "none" ? rules.rebuilding === "used-only" : rules.firstFill === "used-only";
  return owner && usedOnly ? usedShare(owner.pool, dataOfPool(plan, owner.pool, rules)) : 1;
}

const offerOf = (holder: Drive, partner: Drive, unit: UnitFamily): StepOffer => ({
  label: `Mirror ${shortSize(holder, unit)} with its data on ${shortSize(partner, unit)}`,
  steps: [
    {
      kind: "mirror-drive",
      pool: `p-${holder.id}`,
      group: `g-${holder.id}`,
      name: holder.label || "Mirror",
      drive: holder.id,
      by: partner.id,
    },
  ],
});

/**
 * A mirror out of a drive that already holds data, or out of several that are laid end to end onto one large drive:
 * nothing on them is lost, only the new drive is erased. They are free drives with contents, or all those of a group of
 * separate drives, which then becomes the mirror with its volumes.
 */
export const mirrorDrive: StepModule<"mirror-drive"> = {
  kind: "mirror-drive",
  name: "Mirror a drive that holds data",
  boxWork: () => "copy",
  tells: ({ pool: _pool, drive, by, also = [] }, names) => [
    `Make a mirror that keeps what is on ${names.drives([drive, ...also])}, and adds ${names.drive(by)}.`,
    `Read twice which drive is copied to which before you confirm: ${names.drive(by)} is the one that is overwritten.`,
  ],
  paced: true,
  handles: (step) => [...holdersOf(step), step.by],
  label: (step, names) => `Mirror ${names.place(step.drive)} on ${names.size(step.by)}`,
  whileDegraded: "block",
  menu: {
    under: "drives",
    offers: ({ plan, unit }) => {
      const free = plan.drives.filter((drive) => isAvailable(plan, drive.id));
      return free
        .filter((drive) => drive.contents?.kind === "data" || drive.contents?.kind === "mounted")
        .flatMap((holder) => {
          const partner = free
            .filter((drive) => drive.id !== holder.id && drive.bytes >= fileSystemOn(holder))
            .sort((a, b) => a.bytes - b.bytes)[0];
          return partner ? [offerOf(holder, partner, unit)] : [];
        });
    },
  },
  check: (state, step, setting) => {
    const { plan, tested } = state;
    const holders = drivesOf(plan, holdersOf(step));
    const [mirror] = drivesOf(plan, [step.by]);
    const inPlace = separateGroup(plan, step);
    const system = holders.filter((holder) => holder.contents?.kind === "system");
    const found = [
      ...(!inPlace &&
      plan.pools.some((pool) => pool.id === step.pool || pool.groups.some((group) => group.id === step.group))
        ? [
            against(
              "block",
              "group-exists",
              "The mirror is there already at this moment: another step makes it before. Remove one of the two.",
            ),
          ]
        : []),
      ...missingDrives(plan, [...holdersOf(step), step.by]),
      ...notFree(plan, inPlace ? [step.by] : [...holdersOf(step), step.by], setting),
      ...layoutFindings({ layout: layoutIn(step) }, holders.length + 1, setting),
      ...(mirror ? tooSmall(plan, step, mirror, setting) : []),
      ...(system.length > 0
        ? [
            against(
              "block",
              "system-drive",
              "The running system is on that drive; it cannot join a group.",
              system.map((drive) => drive.id),
            ),
          ]
        : []),
      ...(mirror ? joiningFindings([mirror], holders, { layout: layoutIn(step) }, setting, tested) : []),
    ];
    if (!inPlace || found.some((finding) => finding.severity === "block")) return found;
    return [...found, ...volumesFit(state, apply(state, step, setting), step.pool, setting)];
  },
  apply,
  mayLower: true,
  cost: ({ plan }, _after, step, setting) => {
    const share = copiedShare(plan, step, setting);
    const bytes = Math.round(neededFor(plan, step, setting) * share);
    const slowest = slowestRate(drivesOf(plan, [...holdersOf(step), step.by]));
    const rate = workRate(slowest, REBUILD_SHARE, setting.rules, false);
    return noCost({
      hours: hoursFor(bytes, rate),
      erased: [step.by],
      work: [
        ...drivesOf(plan, holdersOf(step)).map((drive) => ({
          drive: drive.id,
          reads: Math.round(reachOf(drive, setting) * share),
          writes: 0,
        })),
        { drive: step.by, reads: 0, writes: bytes },
      ],
      online: "slower",
      filling: step.group,
    });
  },
  say: ({ plan }, step, setting) => {
    const several = (step.also?.length ?? 0) > 0;
    return {
      does:
        `${capital(drivesInWords(plan, holdersOf(step), setting))} ${several ? "keep their" : "keeps its"} data ` +
        `and ${several ? "get" : "gets"} ${named(plan, step.by, setting)} as ` +
        (several ? "their mirror, each on a part of its own" : "its mirror") +
        ".",
      why: several
        ? "The data of each then survives the failure of any one drive."
        : "Its data then survives the failure of either drive.",
    };
  },
};
