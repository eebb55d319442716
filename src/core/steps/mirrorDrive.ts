import { usedShare } from "../box/capacities";
import { dataOfPool } from "../box/figures";
import { driveOf, drivesOf } from "../box/find";
import { isFree } from "../box/members";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed, takeIn } from "../box/state";
import type { UnitFamily } from "../bytes/formatBytes";
import { formatBytes } from "../bytes/formatBytes";
import type { Drive, Group, LayoutId, Plan, Pool, StepOf } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";
import { REBUILD_SHARE } from "../drives/rates";
import { roomOf } from "../drives/room";
import { isSeparate } from "../layouts/isSeparate";
import { layoutOf } from "../layouts/registry";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { drivesInWords, joiningFindings, layoutFindings, missingDrives, named, notFree, volumesFit } from "./checks";
import type { StepOffer } from "./stepMenu";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";

type MirrorStep = StepOf<"mirror-drive">;

const holdersOf = (step: MirrorStep): string[] => [step.drive, ...(step.also ?? [])];
const layoutIn = (step: MirrorStep): LayoutId => (step.also && step.also.length > 0 ? "spanned-mirror" : "raid1");

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

function apply(state: BoxState, step: MirrorStep): BoxState {
  const inPlace = separateGroup(state.plan, step) !== null;
  return changed(state, (plan) => {
    takeIn(plan, step.by);
    const drives = [...holdersOf(step), step.by];
    if (inPlace) {
      const group = plan.pools.find((pool) => pool.id === step.pool)?.groups.find((each) => each.id === step.group);
      if (group) Object.assign(group, { layout: layoutIn(step), drives });
      return;
    }
    holdersOf(step).forEach((drive) => takeIn(plan, drive));
    plan.pools.push({
      id: step.pool,
      name: step.name,
      groups: [{ id: step.group, layout: layoutIn(step), drives, options: {} }],
      spares: [],
      volumes: [],
    });
  });
}

const roomsOf = (plan: Plan, step: MirrorStep, { rules }: StepSetting): number =>
  drivesOf(plan, holdersOf(step)).reduce((sum, drive) => sum + roomOf(drive, rules).length, 0);

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
  handles: (step) => [...holdersOf(step), step.by],
  label: (step, names) => `Mirror ${names.place(step.drive)} on ${names.size(step.by)}`,
  menu: {
    under: "drives",
    offers: ({ plan, unit }) => {
      const free = plan.drives.filter((drive) => isFree(plan, drive.id));
      return free
        .filter((drive) => drive.contents?.kind === "data" || drive.contents?.kind === "mounted")
        .flatMap((holder) => {
          const partner = free
            .filter((drive) => drive.id !== holder.id && drive.bytes >= holder.bytes)
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
    const short = mirror ? roomsOf(plan, step, setting) - roomOf(mirror, setting.rules).length : 0;
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
      ...(short > 0
        ? [
            against(
              "block",
              "too-small",
              `${capital(named(plan, step.by, setting))} is too small by ${formatBytes(short, setting.family)} for what it is to mirror. Choose a larger one.`,
              [step.by],
            ),
          ]
        : []),
      ...(system.length > 0
        ? [
            against(
              "block",
              "system-drive",
              "The running system is on that drive; it cannot become a member.",
              system.map((drive) => drive.id),
            ),
          ]
        : []),
      ...(mirror ? joiningFindings([mirror], holders, { layout: layoutIn(step) }, setting, tested) : []),
    ];
    if (!inPlace || found.some((finding) => finding.severity === "block")) return found;
    return [...found, ...volumesFit(state, apply(state, step), step.pool, setting)];
  },
  apply,
  mayLower: true,
  cost: ({ plan }, _after, step, setting) => {
    const share = copiedShare(plan, step, setting);
    const bytes = Math.round(roomsOf(plan, step, setting) * share);
    const rate = slowestRate(drivesOf(plan, [...holdersOf(step), step.by])) * REBUILD_SHARE;
    return noCost({
      hours: hoursFor(bytes, rate),
      erased: [step.by],
      work: [
        ...drivesOf(plan, holdersOf(step)).map((drive) => ({
          drive: drive.id,
          reads: Math.round(roomOf(drive, setting.rules).length * share),
          writes: 0,
        })),
        { drive: step.by, reads: 0, writes: bytes },
      ],
      online: "slower",
      filling: step.group,
      undoable: driveOf(plan, step.by)?.contents === undefined,
    });
  },
  say: ({ plan }, step, setting) => {
    const several = (step.also?.length ?? 0) > 0;
    return {
      does: `${capital(drivesInWords(plan, holdersOf(step), setting))} ${several ? "keep their" : "keeps its"} data and ${several ? "get" : "gets"} ${named(plan, step.by, setting)} as ${several ? "their mirror, each on a part of its own" : "its mirror"}.`,
      why: several
        ? "The data of each then survives the failure of any one drive."
        : "Its data then survives the failure of either drive.",
    };
  },
};
