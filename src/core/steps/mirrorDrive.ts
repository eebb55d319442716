import { roomOf } from "../drives/room";
import { hoursFor } from "../time/hours";
import { REBUILD_SHARE } from "../time/rates";
import { changed, driveOf, drivesOf, slowestRate, takeIn } from "./box";
import { capital, joiningFindings, layoutFindings, missingDrives, named, notFree } from "./checks";
import { against, noCost, type StepModule } from "./stepModule";

/** A mirror out of a drive that already holds data: nothing on it is lost, only the new drive is erased. */
export const mirrorDrive: StepModule<"mirror-drive"> = {
  kind: "mirror-drive",
  name: "Mirror a drive that holds data",
  check: ({ plan, tested }, step, setting) => {
    const [holder, mirror] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
    const short = holder && mirror ? roomOf(holder, setting.rules).length - roomOf(mirror, setting.rules).length : 0;
    return [
      ...(plan.pools.some((pool) => pool.id === step.pool || pool.groups.some((group) => group.id === step.group)) ? [against("block", "group-exists", "The mirror is there already at this moment: another step makes it before. Remove one of the two.")] : []),
      ...missingDrives(plan, [step.drive, step.by]),
      ...notFree(plan, [step.drive, step.by], setting),
      ...layoutFindings("raid1", 2, setting),
      ...(short > 0 ? [against("block", "too-small", `${capital(named(plan, step.by, setting))} is smaller than the drive it is to mirror. Choose one of at least its size.`, [step.by])] : []),
      ...(holder?.contents?.kind === "system" ? [against("block", "system-drive", "The running system is on that drive; it cannot become a member.", [step.drive])] : []),
      ...(mirror ? joiningFindings([mirror], holder ? [holder] : [], "raid1", setting, tested) : []),
    ];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      takeIn(plan, step.by);
      takeIn(plan, step.drive);
      plan.pools.push({ id: step.pool, name: step.name, groups: [{ id: step.group, layout: "raid1", drives: [step.drive, step.by], options: {} }], spares: [], volumes: [] });
    }),
  cost: ({ plan }, _after, step, { rules }) => {
    const holder = driveOf(plan, step.drive);
    const bytes = holder ? roomOf(holder, rules).length : 0;
    return noCost({ hours: hoursFor(bytes, slowestRate(drivesOf(plan, [step.drive, step.by])) * REBUILD_SHARE), erased: [step.by], work: [{ drive: step.drive, reads: bytes, writes: 0 }, { drive: step.by, reads: 0, writes: bytes }], online: "slower", missing: [step.by] });
  },
  say: ({ plan }, step, setting) => ({ does: `${capital(named(plan, step.drive, setting))} keeps its data and gets ${named(plan, step.by, setting)} as its mirror.`, why: "Its data then survives the failure of either drive." }),
};
