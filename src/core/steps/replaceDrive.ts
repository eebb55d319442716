import { rebuildShareOf } from "../bands/workShare";
import { freeBay } from "../box/bays";
import { bandsOfGroup } from "../box/figures";
import { driveOf, drivesOf } from "../box/find";
import { groupOfDrive } from "../box/members";
import { slowestRate } from "../box/passHours";
import { type BoxState, changed } from "../box/state";
import type { BoxRules, Drive, Group, StepOf } from "../document/plan";
import { bayOf } from "../drives/drive";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { handling, named } from "./checks";
import { costOfFilling } from "./costOfFilling";
import { putInPlaceOf, seated } from "./inPlaceOf";
import { checkReplacing } from "./replacingChecks";
import { costOfNewSpace } from "./newSpace";
import { rebuiltTogether } from "./rebuiltTogether";
import { BY_HAND } from "./stepMenu";
import { workedThrough } from "./workedThrough";
import { noCost, type StepCost, type StepModule, type StepSetting } from "./stepModule";

type Replacing = StepOf<"replace-drive">;

/**
 * With the old drive attached: what the group uses of it is copied, drive to drive; and what the group has gained then,
 * in a box that claims by itself, is made redundant.
 */
function costOfCopy({ plan }: BoxState, after: BoxState, step: Replacing, { rules }: StepSetting): StepCost {
  const owner = groupOfDrive(plan, step.drive);
  if (!owner) return noCost({});
  const bands = bandsOfGroup(plan, owner.group, rules);
  const bytes = workedThrough(plan, owner.pool, owner.group, rules).get(step.drive) ?? 0;
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

/** Another drive in the place of one, with the old one still attached or pulled first. The group keeps its height. */
export const replaceDrive: StepModule<"replace-drive"> = {
  kind: "replace-drive",
  name: "Replace a drive",
  boxWork: ({ how }) => (how === "attached" ? "copy" : "rebuild"),
  tells: ({ drive, by, how }, names) => [
    how === "attached"
      ? `Tell the box to replace ${names.drive(drive)} by ${names.drive(by)}, and leave both in until it has ended.`
      : `Tell the box to rebuild onto ${names.drive(by)}, if it does not begin by itself.`,
  ],
  pullsLast: ({ how }) => how === "attached",
  paced: true,
  handles: (step) => [step.by],
  label: (step, names) => `Replace ${names.place(step.drive)} by ${names.size(step.by)}`,
  answers: (step) => step.drive,
  whileDegraded: "warn",
  ifADriveFails: ({ how }) =>
    how === "attached"
      ? "Let the copy end first: with the old drive in its bay your protection is what it was before, so one " +
        "that may be lost is survived. If it is the old one that fails, what is left to copy is worked out from " +
        "the others."
      : "The drive that was pulled is missing already: if no more may be lost, data is lost.",
  menu: BY_HAND,
  // With the old one still in its bay, drives are changed before and after the copy.
  swaps: (step, plan) => {
    const next = driveOf(plan, step.by);
    return step.how === "attached" && next && bayOf(next) === null ? 2 : 1;
  },
  mayRunBeside: (step, running, plan) => step.how === "pulled" && rebuiltTogether(step.drive, running, plan),
  check: checkReplacing,
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      if (!groupOfDrive(plan, step.drive) || !old || !next) return;
      putInPlaceOf(state.plan, plan, old.id, next.id, rules);
      const bay = step.how === "attached" ? (bayOf(next) ?? freeBay(plan)) : bayOf(old);
      old.place = { shelf: true };
      seated(next, bay);
    }),
  cost: (before, after, step, setting) =>
    step.how === "attached" ? costOfCopy(before, after, step, setting) : costOfFilling(before, after, step, setting),
  say: ({ plan }, step, setting) => {
    const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
    const names = [named(plan, step.drive, setting), named(plan, step.by, setting)] as const;
    return {
      does: `${step.how === "pulled" ? pulledWords(...names) : copiedWords(next, ...names)}${handling(setting)}`,
      why: whyReplaced(old, next, groupOfDrive(plan, step.drive)?.group, setting.rules),
    };
  },
};

const pulledWords = (old: string, next: string) =>
  `${capital(old)} is pulled and replaced by ${next}, and goes to the shelf.`;

/** The old drive stays in its bay until all of it is on the new one. */
const copiedWords = (drive: Drive | undefined, old: string, next: string) =>
  `${drive && bayOf(drive) !== null ? "" : `${capital(next)} goes into a free bay. `}${capital(old)} is copied ` +
  `to ${drive && bayOf(drive) !== null ? next : "it"}, then pulled, and goes to the shelf.`;

function whyReplaced(
  old: Drive | undefined,
  next: Drive | undefined,
  group: Group | undefined,
  rules: BoxRules,
): string {
  if (old && old.health.state !== "good") return "The old drive is worn or failing.";
  if (!old || !next || next.bytes <= old.bytes) return "It takes over what is on the old one.";
  const layout = group && layoutOf(group.layout);
  const claimed = rules.claiming === "by-itself" ? "by itself" : "once it is taken into use";
  if (layout?.countsSmallest)
    return `It allows more: the space comes ${claimed}, once the last small drive of the group has gone.`;
  if (layout?.chunked)
    return `It allows more: the space comes ${claimed}, as far as other drives have space for the copies or parity.`;
  return layout?.cutsAtSizes
    ? `It allows more: the space comes ${claimed}, as soon as enough drives are as large.`
    : `It allows more: the space of this drive comes ${claimed}.`;
}
