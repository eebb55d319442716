import { inText } from "../layouts/inText";
import { heightOn } from "../bands/occupied";
import { storedIn } from "../box/capacities";
import { changedBands } from "../bands/changedBands";
import { usableOf } from "../bands/contents";
import { bandsOfGroup, usableOfPool } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import type { BoxState } from "../box/state";
import type { Drive, Group, GroupOptions, Plan, Pool, StepBody, StepOf } from "../document/plan";
import { roomOf } from "../drives/room";
import { formatBytes } from "../bytes/formatBytes";
import type { Finding } from "../findings/finding";
import type { Layout } from "../layouts/layout";
import { shortNameOf } from "../layouts/chunks";
import { levelVerdict } from "../layouts/levelVerdict";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { IF_WRONG } from "../rules/ifWrong";
import { capital } from "../words/capital";
import { drivesInWords, joiningFindings, missingDrives, notFree, volumesFit, withoutBackup } from "./checks";
import { parityOf } from "../bands/parityOf";
import { roomForChunks } from "./roomForChunks";
import { against, type StepSetting } from "./stepModule";

/** What a check of a level change looks at. */
interface Change {
  plan: Plan;
  step: StepOf<"change-level">;
  setting: StepSetting;
  pool: Pool;
  group: Group;
  from: Layout;
  to: Layout;
  options: GroupOptions;
  members: Drive[];
  joining: Drive[];
}

/** That the box offers the level, and that the group has not got it. */
function offered({ from, to, group, options, setting }: Change): Finding[] {
  const found: Finding[] = [];
  const name = shortNameOf(to, options);
  if (from.id === to.id && name === shortNameOf(from, group.options))
    found.push(against("block", "same-level", `The group has ${name} already.`));
  else if (from.id === to.id && setting.rules.levelChanges !== "in-one-go")
    found.push(against("block", "no-path", `Your box does not change the width of ${inText(to)}.`));
  if (!setting.rules.layouts.includes(to.id))
    found.push(against("block", "layout-not-offered", `Your box does not offer ${inText(to)}. ${IF_WRONG}`));
  return found;
}

/** No way that keeps the data: offers the one through a backup, for a pool of this one group. */
function noPath({ step, pool, group, from, to }: Change): Finding {
  const anew: StepBody[] = [
    { kind: "back-up", pool: pool.id, to: "a destination of your choice" },
    { kind: "rebuild-from-backup", pool: pool.id, layout: to.id, drives: [...group.drives, ...step.drives] },
  ];
  return against(
    "block",
    "no-path",
    `Your box has no way from ${inText(from)} to ${inText(to)} that keeps the data. It has to be made again ` +
      "and restored from a backup.",
    [],
    pool.groups.length === 1
      ? { label: "Back up, make it again and restore", command: { kind: "replace-step", step: step.id, by: anew } }
      : undefined,
  );
}

/** Several levels at once: offers them one after the other, a drive with each. */
function byWayOf({ step, from }: Change, levels: readonly Layout["id"][]): Finding {
  const steps = levels.map((layout, i): StepBody => ({
    kind: "change-level",
    group: step.group,
    layout,
    drives: i < levels.length - 1 ? step.drives.slice(i, i + 1) : step.drives.slice(i),
  }));
  return against(
    "block",
    "level-jump",
    `Your box goes one level at a time: from ${inText(from)} by way of ` +
      `${levels.map((id) => inText(layoutOf(id))).join(" to ")}.`,
    [],
    { label: `Split it into ${steps.length} steps`, command: { kind: "replace-step", step: step.id, by: steps } },
  );
}

/** That there is a path from the one level to the other. */
function path(change: Change): Finding[] {
  const { step, setting, from, to, members } = change;
  if (from.id === to.id) return [];
  const [bottom] = bandsOfGroup(change.plan, change.group, setting.rules);
  const order = bottom?.members.map((member) => member.drive) ?? [];
  const verdict = levelVerdict(
    {
      from: from.id,
      to: to.id,
      drives: members.length,
      joining: step.drives.length,
      leaving: step.without?.length ?? 0,
      equal: new Set(members.map((drive) => roomOf(drive, setting.rules).length)).size === 1,
      places: (step.without ?? []).map((drive) => order.indexOf(drive)),
    },
    setting.rules,
  );
  switch (verdict.kind) {
    case "possible":
      return [];
    case "refused":
      return [against("block", "level-refused", verdict.reason)];
    case "no-path":
      return [noPath(change)];
    case "by-way-of":
      return [byWayOf(change, verdict.levels)];
  }
}

/** That the level can be made of so many drives. */
function count({ step, setting, to, options, members, joining }: Change): Finding[] {
  const drives = members.length + joining.length - (step.without?.length ?? 0);
  const wrong = wrongCount(to, drives, setting.rules, options);
  return wrong ? [against("block", "wrong-drive-count", `${to.shortName} of ${drives} drives: ${wrong}`)] : [];
}

/** The most that a drive which joins has to reach up to: as high as the members are used, or as a parity drive must. */
function leastHeight({ plan, setting, group, from, to, members }: Change): { bytes: number; why: string } | null {
  const { rules } = setting;
  const bands = bandsOfGroup(plan, group, rules);
  if (to.dedicatedParity) {
    const parity = parityOf(bands);
    const data = members.filter((member) => !parity.includes(member.id));
    return {
      bytes: Math.max(0, ...data.map((member) => roomOf(member, rules).length)),
      why: "is smaller than a data drive; a parity drive must be at least as large as each of them.",
    };
  }
  if (!from.countsSmallest && !from.zonedWhenUnequal) return null;
  const heights = members.map((member) => heightOn(bands, member.id, roomOf(member, rules).systemReserve));
  return {
    bytes: Math.max(0, ...heights),
    why: "is too small: it must be as high as the group's drives are used.",
  };
}

/** That the drives which join are large enough. */
function tooSmall(change: Change): Finding[] {
  const least = leastHeight(change);
  if (!least) return [];
  const { plan, setting, to, joining } = change;
  return joining.flatMap((drive) => {
    const room = roomOf(drive, setting.rules);
    if ((to.dedicatedParity ? room.length : room.between) >= least.bytes) return [];
    const message = `${capital(drivesInWords(plan, [drive.id], setting))} ${least.why}`;
    return [against("block", "too-small", message, [drive.id])];
  });
}

/** That what a chunk pool holds fits in the new layout. */
function fitsThen({ pool, to, setting }: Change, after: BoxState): Finding[] {
  const then = after.plan.pools.find((each) => each.id === pool.id);
  if (!then || !to.chunked || storedIn(pool) <= usableOfPool(after.plan, then, setting.rules)) return [];
  return [against("block", "no-room-to-work", "What is stored would not fit in the new layout.")];
}

/** That what is stored has a place while bands are given up that too few drives reach for the level. */
function placeMeanwhile({ plan, step, setting, pool, group, to }: Change, after: BoxState): Finding[] {
  const then = groupOf(after.plan, step.group);
  if (!then || !to.cutsAtSizes || pool.groups.length > 1) return [];
  const bands = bandsOfGroup(after.plan, then, setting.rules);
  const { made } = changedBands(bandsOfGroup(plan, group, setting.rules), bands);
  const stays = usableOf(bands.filter((band) => !made.includes(band)));
  const given = pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
  if (given <= stays && bands.length > 0) return [];
  const { family } = setting;
  const message =
    `Too few drives reach as high as the group for ${inText(to)}: only ${formatBytes(stays, family)} of it stay ` +
    `while the rest is laid out again, and its volumes have ${formatBytes(given, family)}. Take larger drives, or make ` +
    "the volumes smaller first.";
  return [against("block", "laid-out-again", message, step.drives)];
}

/** What must not happen meanwhile; of the one path that has been seen to end badly, that it has. */
function whileItRuns({ from, to, setting }: Change): Finding {
  const path = from.becomes.find((each) => each.to === to.id);
  return path?.failedInterrupted && setting.rules.arrayFormat === "linux-raid"
    ? against(
        "note",
        "riskiest",
        "This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a " +
          "tested backup, and do not switch off.",
      )
    : against("note", "keep-running", "Do not switch off while this runs; have a tested backup.");
}

/**
 * What stands against another level for a group.
 *
 * @param next the state after it, asked for only where nothing blocks it
 */
export function checkLevel(
  state: BoxState,
  step: StepOf<"change-level">,
  setting: StepSetting,
  next: () => BoxState,
): Finding[] {
  const { plan } = state;
  const group = groupOf(plan, step.group);
  const pool = poolOfGroup(plan, step.group);
  if (!group || !pool) return [against("block", "no-such-group", "The group is not there at this moment.")];
  const options = step.options ?? group.options ?? {};
  const [members, joining] = [drivesOf(plan, group.drives), drivesOf(plan, step.drives)];
  const [from, to] = [layoutOf(group.layout), layoutOf(step.layout)];
  const change: Change = { plan, step, setting, pool, group, from, to, options, members, joining };
  const found = [
    ...missingDrives(plan, step.drives),
    ...notFree(plan, step.drives, setting),
    ...offered(change),
    ...path(change),
    ...count(change),
    ...tooSmall(change),
    ...joiningFindings(joining, members, { layout: step.layout, options }, setting, state.tested),
    ...roomForChunks(plan, pool, step, { does: "Changing the layout of", uses: step.drives }, setting),
  ];
  if (found.some((finding) => finding.severity === "block")) return found;
  const after = next();
  return [
    ...found,
    ...fitsThen(change, after),
    ...placeMeanwhile(change, after),
    ...volumesFit(state, after, pool.id, setting),
    // A further parity drive is written beside what is stored, and nothing of that is rewritten.
    ...(to.dedicatedParity ? [] : withoutBackup(state, pool.id, "The change of level", setting)),
    whileItRuns(change),
  ];
}
