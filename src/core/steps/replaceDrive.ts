import { isRedundant } from "../bands/isRedundant";
import { occupied } from "../bands/occupied";
import { rebuildShareOf } from "../bands/workShare";
import { freeBay } from "../box/bays";
import { usedShare } from "../box/capacities";
import { bandsOfGroup, dataOfPool } from "../box/figures";
import { driveOf, drivesOf } from "../box/find";
import { groupOfDrive } from "../box/members";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed } from "../box/state";
import type { BoxRules, Drive, Group, StepOf } from "../document/plan";
import { bayOf } from "../drives/drive";
import { limitedRoom, roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import { rebuildsOf } from "../speeds/rebuild";
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { handling, named } from "./checks";
import { filledOf } from "./filledOf";
import { keepArrays } from "./keepArrays";
import { checkReplacing } from "./replacingChecks";
import { costOfNewSpace } from "./newSpace";
import { rebuiltTogether } from "./rebuiltTogether";
import { BY_HAND } from "./stepMenu";
import { noCost, type StepCost, type StepModule, type StepSetting } from "./stepModule";
import { ownValue, withoutValue, withValue } from "../records/ownValue";

type Replacing = StepOf<"replace-drive">;

/**
 * With the old drive attached: what the group uses of it is copied, drive to drive; and what the group has gained then,
 * in a box that claims by itself, is made redundant.
 */
function costOfCopy({ plan }: BoxState, after: BoxState, step: Replacing, { rules }: StepSetting): StepCost {
  const owner = groupOfDrive(plan, step.drive);
  if (!owner) return noCost({});
  const share = rules.rebuilding === "used-only" ? usedShare(owner.pool, dataOfPool(plan, owner.pool, rules)) : 1;
  const bands = bandsOfGroup(plan, owner.group, rules);
  const bytes = Math.round((occupied(bands).get(step.drive) ?? 0) * share);
  const more = costOfNewSpace(plan, after.plan, owner.group.id, rules, { [step.by]: step.drive });
  const others = (more?.work ?? []).filter(({ drive }) => drive !== step.by);
  const own = more?.work.find(({ drive }) => drive === step.by)?.writes ?? 0;
  // Drive to drive: no parity is worked out for it.
  const slowest = slowestRate(drivesOf(plan, [step.drive, step.by]));
  const copy = hoursFor(bytes, workRate(slowest, rebuildShareOf(bands), rules, false));
  return noCost({
    hours: addHours(copy, more?.hours ?? NO_HOURS),
    erased: [step.by],
    work: [
      { drive: step.drive, reads: bytes, writes: 0 },
      { drive: step.by, reads: 0, writes: bytes + own },
      ...others,
    ],
    online: "slower",
  });
}

/** With the old drive pulled: what was on it is worked out anew from all the others. */
function costOfRebuild({ plan }: BoxState, after: BoxState, step: Replacing, { rules }: StepSetting): StepCost {
  const owner = groupOfDrive(plan, step.drive);
  const then = groupOfDrive(after.plan, step.by);
  if (!owner || !then) return noCost({});
  const bands = bandsOfGroup(after.plan, then.group, rules);
  const members = drivesOf(after.plan, then.group.drives);
  const used = usedShare(then.pool, dataOfPool(after.plan, then.pool, rules));
  const next = members.filter((each) => each.id === step.by);
  const [rebuild] = rebuildsOf(bands, members, rules, used, next);
  const share = rules.rebuilding === "used-only" ? used : 1;
  const reads = new Map<string, number>();
  for (const band of bands.filter((each) => isRedundant(each) && each.members.some(({ drive }) => drive === step.by)))
    for (const { drive, length } of band.members)
      if (drive !== step.by) reads.set(drive, (reads.get(drive) ?? 0) + Math.round(length * share));
  return noCost({
    hours: rebuild?.hours ?? noCost({}).hours,
    erased: [step.by],
    work: [
      ...[...reads].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
      { drive: step.by, reads: 0, writes: rebuild?.writes ?? 0 },
    ],
    online: "slower",
    missing: [step.drive],
    unready: [step.by],
  });
}

/** Another drive in the place of one, with the old one still attached or pulled first. The group keeps its height. */
export const replaceDrive: StepModule<"replace-drive"> = {
  kind: "replace-drive",
  name: "Replace a drive",
  paced: true,
  handles: (step) => [step.by],
  label: (step, names) => `Replace ${names.place(step.drive)} by ${names.size(step.by)}`,
  menu: BY_HAND,
  // With the old one attached, drives are changed before and after the copy.
  swaps: (step, plan) => {
    const next = driveOf(plan, step.by);
    return step.how === "attached" && next && bayOf(next) === null ? 2 : 1;
  },
  mayRunBeside: (step, running, plan) => step.how === "pulled" && rebuiltTogether(step.drive, running, plan),
  check: checkReplacing,
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const owner = groupOfDrive(plan, step.drive);
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      if (!owner || !old || !next) return;
      const { group, pool } = owner;
      keepArrays(state.plan, group, rules);
      const reached = limitedRoom(roomOf(old, rules), ownValue(group.reach, old.id)).between;
      if (layoutOf(group.layout).chunked) {
        const filled = filledOf(plan, pool, group, rules);
        group.filled = withValue(withoutValue(filled, old.id), next.id, ownValue(filled, old.id) ?? 0);
      }
      group.drives[group.drives.indexOf(old.id)] = next.id;
      const parity = group.options?.parityDrives;
      if (parity)
        group.options = { ...group.options, parityDrives: parity.map((id) => (id === old.id ? next.id : id)) };
      const others = withoutValue(group.reach, old.id);
      const reach = reached < roomOf(next, rules).between ? withValue(others, next.id, reached) : others;
      if (Object.keys(reach).length > 0) group.reach = reach;
      else delete group.reach;
      const bay = bayOf(old);
      const own = step.how === "attached" ? (bayOf(next) ?? freeBay(plan)) : bay;
      old.place = { shelf: true };
      if (own !== null) next.place = { bay: own };
      delete next.contents;
      delete next.toBuy;
    }),
  cost: (before, after, step, setting) =>
    step.how === "attached" ? costOfCopy(before, after, step, setting) : costOfRebuild(before, after, step, setting),
  say: ({ plan }, step, setting) => {
    const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
    return {
      does: `${capital(named(plan, step.drive, setting))} is ${step.how === "pulled" ? "pulled and replaced by" : "copied, while attached, to"} ${named(plan, step.by, setting)}, and goes to the shelf.${handling(setting)}`,
      why: whyReplaced(old, next, groupOfDrive(plan, step.drive)?.group, setting.rules),
    };
  },
};

function whyReplaced(
  old: Drive | undefined,
  next: Drive | undefined,
  group: Group | undefined,
  rules: BoxRules,
): string {
  if (old && old.health.state !== "good") return "The old drive is suspect.";
  if (!old || !next || next.bytes <= old.bytes) return "It takes over what is on the old one.";
  const layout = group && layoutOf(group.layout);
  const claimed = rules.claiming === "by-itself" ? "by itself" : "when it is claimed";
  if (layout?.countsSmallest)
    return `It makes room for more: the space comes ${claimed}, once the last small drive of the group has gone.`;
  if (layout?.chunked)
    return `It makes room for more: the space comes ${claimed}, as far as other drives have room for the copies or parity.`;
  return layout?.cutsAtSizes
    ? `It makes room for more: the space comes ${claimed}, as soon as enough drives are as large.`
    : `It makes room for more: the space of this drive comes ${claimed}.`;
}
