import { BY_HAND } from "./stepMenu";
import { parityOf } from "./parityOf";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { wrongCount } from "../layouts/problemsOfLayout";
import { hoursFor } from "../time/hours";
import { REBUILD_SHARE, RESHAPE_SHARE, sequentialRate } from "../drives/rates";
import { joiningFindings, drivesInWords, missingDrives, notFree, volumesFit, withoutBackup } from "./checks";
import { levelVerdict } from "../layouts/levelVerdict";
import { against, noCost, type StepModule, type StepSetting } from "./stepModule";
import { reachIn } from "./reachIn";
import type { StepBody, StepOf } from "../document/plan";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { type BoxState, changed, takeIn } from "../box/state";
import { bandsOfGroup, usableOfPool } from "../box/figures";
import { heightOn, occupied } from "../bands/occupied";
import { storedIn } from "../box/capacities";
import { passHours } from "../box/passHours";
import { capital } from "../words/capital";

function apply(state: BoxState, step: StepOf<"change-level">, { rules }: StepSetting): BoxState {
  return changed(state, (plan) => {
    const group = groupOf(plan, step.group);
    if (!group) return;
    const parity =
      layoutOf(group.layout).dedicatedParity && layoutOf(step.layout).dedicatedParity
        ? parityOf(bandsOfGroup(state.plan, groupOf(state.plan, step.group) ?? group, rules))
        : [];
    for (const drive of step.drives) {
      const reach = reachIn(plan, group, drive, rules);
      takeIn(plan, drive);
      group.drives.push(drive);
      if (reach !== undefined) group.reach = { ...group.reach, [drive]: reach };
    }
    group.drives = group.drives.filter((drive) => !step.without?.includes(drive));
    for (const drive of step.without ?? []) if (group.reach) delete group.reach[drive];
    group.layout = step.layout;
    delete group.filled;
    if (step.options) group.options = { ...step.options };
    if (parity.length > 0) group.options = { ...group.options, parityDrives: [...parity, ...step.drives] };
  });
}

/**
 * Another level for a group, its heights kept: one at a time or in one go by the rules, shape and drive count checked.
 */
export const changeLevel: StepModule<"change-level"> = {
  kind: "change-level",
  name: "Change the level",
  handles: (step) => step.drives,
  rewrites: true,
  label: (step, names) =>
    `To ${layoutOf(step.layout).shortName}${step.drives.length > 0 ? ` with ${names.list(step.drives)}` : ""}`,
  menu: BY_HAND,
  mayLower: true,
  check: (state, step, setting) => {
    const { plan, tested } = state;
    const { rules } = setting;
    const group = groupOf(plan, step.group);
    const pool = poolOfGroup(plan, step.group);
    if (!group || !pool) return [against("block", "no-such-group", "The group is not there at this moment.")];
    const found = [...missingDrives(plan, step.drives), ...notFree(plan, step.drives, setting)];
    const [from, to] = [layoutOf(group.layout), layoutOf(step.layout)];
    const options = step.options ?? group.options ?? {};
    if (from.id === to.id) found.push(against("block", "same-level", `The group has ${to.shortName} already.`));
    if (!rules.layouts.includes(step.layout))
      found.push(against("block", "layout-not-offered", `By its rules your box does not offer ${to.shortName}.`));
    const members = drivesOf(plan, group.drives);
    const joining = drivesOf(plan, step.drives);
    const change = {
      from: from.id,
      to: to.id,
      drives: members.length,
      joining: step.drives.length,
      leaving: step.without?.length ?? 0,
      equal: new Set(members.map((drive) => roomOf(drive, rules).length)).size === 1,
    };
    const verdict = from.id === to.id ? { kind: "possible" as const } : levelVerdict(change, rules);
    if (verdict.kind === "refused") found.push(against("block", "level-refused", verdict.reason));
    if (verdict.kind === "no-path") {
      const anew: StepBody[] = [
        { kind: "back-up", pool: pool.id, to: "a destination of your choice" },
        { kind: "rebuild-from-backup", pool: pool.id, layout: step.layout, drives: [...group.drives, ...step.drives] },
      ];
      found.push(
        against(
          "block",
          "no-path",
          `Your box has no way from ${from.shortName} to ${to.shortName} that keeps the data. It has to be made anew from a backup.`,
          [],
          pool.groups.length === 1
            ? { label: "Back up and make it anew", command: { kind: "replace-step", step: step.id, by: anew } }
            : undefined,
        ),
      );
    }
    if (verdict.kind === "by-way-of") {
      const steps = verdict.levels.map((layout, i): StepBody => ({
        kind: "change-level",
        group: step.group,
        layout,
        drives: i < verdict.levels.length - 1 ? step.drives.slice(i, i + 1) : step.drives.slice(i),
      }));
      found.push(
        against(
          "block",
          "level-jump",
          `Your box goes one level at a time: from ${from.shortName} by way of ${verdict.levels.map((id) => layoutOf(id).shortName).join(" to ")}.`,
          [],
          { label: `Split it into ${steps.length} steps`, command: { kind: "replace-step", step: step.id, by: steps } },
        ),
      );
    }
    const count = members.length + joining.length - change.leaving;
    const wrong = wrongCount(to, count, rules, options);
    if (wrong) found.push(against("block", "wrong-drive-count", `${to.shortName} of ${count} drives: ${wrong}`));
    const bands = bandsOfGroup(plan, group, rules);
    if (from.countsSmallest) {
      const height = Math.max(
        0,
        ...members.map((member) => heightOn(bands, member.id, roomOf(member, rules).systemReserve)),
      );
      for (const drive of joining)
        if (roomOf(drive, rules).between < height)
          found.push(
            against(
              "block",
              "too-small",
              `${capital(drivesInWords(plan, [drive.id], setting))} is too small: it must be as high as the group's members are used.`,
              [drive.id],
            ),
          );
    }
    if (to.dedicatedParity) {
      const most = Math.max(
        0,
        ...members
          .filter((member) => bands.some((band) => band.members.slice(0, -1).some((each) => each.drive === member.id)))
          .map((member) => roomOf(member, rules).length),
      );
      for (const drive of joining)
        if (roomOf(drive, rules).length < most)
          found.push(
            against(
              "block",
              "too-small",
              `${capital(drivesInWords(plan, [drive.id], setting))} is smaller than a data drive; a parity drive must be at least as large as each of them.`,
              [drive.id],
            ),
          );
    }
    found.push(...joiningFindings(joining, members, { layout: step.layout, options }, setting, tested));
    if (found.some((finding) => finding.severity === "block")) return found;
    const after = apply(state, step, setting);
    const then = poolOfGroup(after.plan, step.group);
    if (then && to.chunked) {
      const room = usableOfPool(after.plan, then, rules);
      if (storedIn(pool) > room)
        found.push(against("block", "no-room-to-work", "What is stored would not fit in the new layout."));
      else if (pool.volumes.some((volume) => volume.usedBytes !== undefined) && storedIn(pool) > 0.85 * room)
        found.push(
          against(
            "warn",
            "little-room-to-work",
            "The pool is nearly full. The change needs free room to work in and may stop half-way, with part of the data in the old layout and part in the new; nothing is lost then.",
          ),
        );
    }
    return [
      ...found,
      ...volumesFit(state, after, pool.id, setting),
      ...withoutBackup(state, pool.id, "The change of level", setting),
      against(
        "note",
        "riskiest",
        "This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.",
      ),
    ];
  },
  apply,
  cost: ({ plan }, after, step, { rules }) => {
    const [before, then] = [groupOf(plan, step.group), groupOf(after.plan, step.group)];
    if (!before || !then) return noCost({});
    const [was, is] = [occupied(bandsOfGroup(plan, before, rules)), occupied(bandsOfGroup(after.plan, then, rules))];
    if (layoutOf(step.layout).dedicatedParity) {
      const bytes = Math.max(0, ...was.values());
      return noCost({
        hours: hoursFor(bytes, Math.min(...drivesOf(after.plan, then.drives).map(sequentialRate)) * REBUILD_SHARE),
        erased: [...step.drives],
        work: [
          ...before.drives.map((drive) => ({ drive, reads: was.get(drive) ?? 0, writes: 0 })),
          ...step.drives.map((drive) => ({ drive, reads: 0, writes: is.get(drive) ?? 0 })),
        ],
        online: "slower",
      });
    }
    return noCost({
      hours: passHours(plan, was, RESHAPE_SHARE),
      erased: [...step.drives],
      work: [
        ...before.drives.map((drive) => ({ drive, reads: was.get(drive) ?? 0, writes: is.get(drive) ?? 0 })),
        ...step.drives.map((drive) => ({ drive, reads: 0, writes: is.get(drive) ?? 0 })),
      ],
      online: "slower",
      undoable: false,
    });
  },
  say: ({ plan }, step, setting) => {
    const group = groupOf(plan, step.group);
    const joining = step.drives.length > 0 ? `, with ${drivesInWords(plan, step.drives, setting)}` : "";
    return {
      does: `${poolOfGroup(plan, step.group)?.name ?? "The pool"} goes from ${group ? layoutOf(group.layout).shortName : "its layout"} to ${layoutOf(step.layout).shortName}${joining}.`,
      why: `${capital(layoutOf(step.layout).name)}: ${layoutOf(step.layout).summary}`,
    };
  },
};
