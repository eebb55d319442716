import { heightOn } from "../bands/occupied";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import type { BoxState } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import type { Drive, Group, Plan, StepBody, StepOf } from "../document/plan";
import { checkJoining } from "../drives/checks/joining";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { rulesForJoining } from "../layouts/joins";
import type { Layout } from "../layouts/layout";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { turnsOf, widenedAtOnce, widensByDrive } from "../layouts/widens";
import { IF_WRONG } from "../rules/ifWrong";
import { oneOrMany } from "../words/counted";
import { capital } from "../words/capital";
import { largerThanParity } from "./besideParity";
import { shortBy } from "../drives/shortBy";
import { drivesInWords, joiningFindings, missingDrives, notFree, withoutBackup } from "./checks";
import { nothingGained, partUsedFindings } from "./partUsedFindings";
import { against, type StepSetting } from "./stepModule";

/** What a check of a widening looks at. */
interface WideningOf {
  plan: Plan;
  step: StepOf<"widen-group">;
  setting: StepSetting;
  group: Group;
  layout: Layout;
  members: Drive[];
  joining: Drive[];
}

/** That the box widens groups, and by so many drives at once. */
function allowed({ step, setting, layout }: WideningOf): Finding[] {
  if (!widensByDrive(layout, setting.rules)) {
    const message = `Your box does not widen a group. Add another group, or replace its drives. ${IF_WRONG}`;
    return [against("block", "no-widening", message)];
  }
  const atOnce = widenedAtOnce(layout, setting.rules);
  if (step.drives.length <= atOnce) return [];
  const turns = turnsOf(step.drives, layout, setting.rules);
  const each = turns.map((drives): StepBody => ({ kind: "widen-group", group: step.group, drives }));
  const message = `Your box widens by ${oneOrMany(atOnce, "one drive", "drives")} at a time. Do it in as many steps.`;
  return [
    against("block", "one-at-a-time", message, step.drives, {
      label: `Split it into ${each.length} steps`,
      command: { kind: "replace-step", step: step.id, by: each },
    }),
  ];
}

/** That the group can be of so many drives, and its drives of such sizes. */
function shape({ setting, group, layout, members, joining }: WideningOf): Finding[] {
  const { rules } = setting;
  const wrong = wrongCount(layout, members.length + joining.length, rules, group.options);
  const found = wrong ? [against("block", "wrong-drive-count", wrong)] : [];
  const unequal = new Set(members.map((drive) => drive.bytes)).size > 1;
  if (layout.zonedWhenUnequal && rules.arrayFormat === "linux-raid" && unequal)
    found.push(against("block", "zoned-stripe", "A stripe over drives of different sizes cannot be widened."));
  return found;
}

/** That the drives which join have the size that the box's rule asks for. */
function bySizeRule({ setting, layout, members, joining }: WideningOf): Finding[] {
  // "As large as the smallest member" means as high as the members are used, which `reaching` asks for.
  const rules = rulesForJoining(layout, setting.rules);
  if (layout.joinsAnySize || (layout.countsSmallest && rules.joining === "as-smallest-member")) return [];
  return joining
    .flatMap((drive) => checkJoining(drive, members, rules, setting.family))
    .filter((finding) => finding.code !== "larger-than-parity");
}

/** That, whatever the rule, a drive reaches as high as the group's one band does. */
function reaching({ plan, setting, group, layout, members, joining }: WideningOf): Finding[] {
  // A stripe lies in zones where it is made of unequal drives; none is taken into one that it would part.
  if (!layout.countsSmallest && !layout.zonedWhenUnequal) return [];
  const { rules, family } = setting;
  const bands = bandsOfGroup(plan, group, rules);
  const heights = members.map((member) => heightOn(bands, member.id, roomOf(member, rules).systemReserve));
  const height = Math.max(0, ...heights);
  return joining.flatMap((drive) => {
    const short = height - roomOf(drive, rules).between;
    if (short <= 0) return [];
    const { by, help } = shortBy(short, height, family);
    const message =
      `${capital(drivesInWords(plan, [drive.id], setting))} is too small by ${by}: it must be as high as the ` +
      `group's drives are used, ${formatBytes(height, family)}. Taken in, it would drag the whole group ` +
      `down.${help}`;
    return [against("block", "too-small", message, [drive.id])];
  });
}

/** What stands against further drives for a group. */
export function checkWidening(state: BoxState, step: StepOf<"widen-group">, setting: StepSetting): Finding[] {
  const { plan } = state;
  const group = groupOf(plan, step.group);
  const pool = poolOfGroup(plan, step.group);
  if (!group || !pool) return [against("block", "no-such-group", "The group is not there at this moment.")];
  const layout = layoutOf(group.layout);
  const [members, joining] = [drivesOf(plan, group.drives), drivesOf(plan, step.drives)];
  const widening: WideningOf = { plan, step, setting, group, layout, members, joining };
  const sizes = bySizeRule(widening);
  return [
    ...missingDrives(plan, step.drives),
    ...notFree(plan, step.drives, setting),
    ...(step.drives.length === 0 ? [against("block", "no-drives", "Choose the drives that are to join.")] : []),
    ...allowed(widening),
    ...shape(widening),
    ...sizes,
    ...largerThanParity(plan, group, members, joining, setting, (parity, larger) => ({
      step: step.id,
      by: [
        { kind: "change-parity-drive", group: group.id, drive: parity.id, by: larger.id },
        {
          kind: "widen-group",
          group: group.id,
          drives: step.drives.map((id) => (id === larger.id ? parity.id : id)),
        },
      ],
    })),
    ...(sizes.some((finding) => finding.code === "too-small") ? [] : reaching(widening)),
    ...nothingGained(plan, group, joining, setting),
    ...partUsedFindings(plan, group, [...members, ...joining], joining, setting),
    ...joiningFindings(joining, members, group, setting, state.tested),
    ...(layout.widening === "rewrites" ? withoutBackup(state, pool.id, "Widening", setting) : []),
  ];
}
