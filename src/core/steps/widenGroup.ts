import { plural } from "../words/counted";
import { BY_HAND } from "./stepMenu";
import { formatBytes } from "../bytes/formatBytes";
import { checkJoining } from "../drives/checks/joining";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { takesAnyDrive, widensByDrive } from "../layouts/widens";
import { wrongCount } from "../layouts/problemsOfLayout";
import { hoursFor } from "../time/hours";
import { RESHAPE_SHARE, REBUILD_SHARE } from "../drives/rates";
import { joiningFindings, drivesInWords, missingDrives, notFree, withoutBackup } from "./checks";
import { filledOf } from "./filledOf";
import { reachIn } from "./reachIn";
import { against, A_FEW_MINUTES, noCost, type StepModule } from "./stepModule";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { changed, takeIn } from "../box/state";
import { bandsOfGroup } from "../box/figures";
import { heightOn, occupied } from "../bands/occupied";
import { slowestRate, passHours } from "../box/passHours";
import { capital } from "../words/capital";

/** One or more drives more in a group: all its stripes are rewritten, and the space is there only at the end. */
export const widenGroup: StepModule<"widen-group"> = {
  kind: "widen-group",
  name: "Widen the group",
  handles: (step) => step.drives,
  rewrites: true,
  label: (step, names) => `Widen by ${names.list(step.drives)}`,
  menu: BY_HAND,
  check: (state, step, setting) => {
    const { plan, tested } = state;
    const { rules, family } = setting;
    const group = groupOf(plan, step.group);
    const pool = poolOfGroup(plan, step.group);
    if (!group || !pool) return [against("block", "no-such-group", "The group is not there at this moment.")];
    const layout = layoutOf(group.layout);
    const joining = drivesOf(plan, step.drives);
    const members = drivesOf(plan, group.drives);
    const found = [...missingDrives(plan, step.drives), ...notFree(plan, step.drives, setting)];
    if (step.drives.length === 0) found.push(against("block", "no-drives", "Choose the drives that are to join."));
    if (!widensByDrive(layout, rules))
      found.push(
        against(
          "block",
          "no-widening",
          "By its rules your box does not widen a group. Add a further group, or replace its drives.",
        ),
      );
    else if (rules.widening === "one-drive" && step.drives.length > 1 && !takesAnyDrive(layout)) {
      const [first, ...rest] = step.drives;
      found.push(
        against(
          "block",
          "one-at-a-time",
          "Your box widens by one drive at a time. Do it in as many steps.",
          step.drives,
          {
            label: "Split it into one step each",
            command: {
              kind: "replace-step",
              step: step.id,
              by: [
                { kind: "widen-group", group: step.group, drives: first ? [first] : [] },
                ...rest.map((drive) => ({ kind: "widen-group" as const, group: step.group, drives: [drive] })),
              ],
            },
          },
        ),
      );
    }
    const wrong = wrongCount(layout, members.length + joining.length, rules, group.options);
    if (wrong) found.push(against("block", "wrong-drive-count", wrong));
    if (
      layout.zonedWhenUnequal &&
      rules.arrayFormat === "linux-raid" &&
      new Set(members.map((drive) => drive.bytes)).size > 1
    )
      found.push(against("block", "zoned-stripe", "A stripe over drives of different sizes cannot be widened."));
    if (!layout.joinsAnySize)
      joining.forEach((drive) =>
        found.push(
          ...checkJoining(drive, members, rules, family).map((finding) =>
            finding.code === "larger-than-parity" ? { ...finding, severity: "block" as const } : finding,
          ),
        ),
      );
    // Whatever the rule, a drive must reach as high as the group's one band does.
    const bands = bandsOfGroup(plan, group, rules);
    if (layout.countsSmallest) {
      for (const drive of joining) {
        const room = roomOf(drive, rules);
        const height = Math.max(
          0,
          ...members.map((member) => heightOn(bands, member.id, roomOf(member, rules).systemReserve)),
        );
        if (room.between < height && !found.some((finding) => finding.code === "too-small"))
          found.push(
            against(
              "block",
              "too-small",
              `${capital(drivesInWords(plan, [drive.id], setting))} is too small by ${formatBytes(height - room.between, family)}: it must be as high as the group's members are used. Taken in, it would drag the whole group down.`,
              [drive.id],
            ),
          );
      }
    }
    found.push(...joiningFindings(joining, members, group, setting, tested));
    if (!takesAnyDrive(layout)) found.push(...withoutBackup(state, pool.id, "Widening", setting));
    return found;
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const group = groupOf(plan, step.group);
      const pool = poolOfGroup(plan, step.group);
      if (!group || !pool) return;
      const filled = layoutOf(group.layout).chunked ? filledOf(plan, pool, group, rules) : null;
      for (const drive of step.drives) {
        const reach = reachIn(plan, group, drive, rules);
        takeIn(plan, drive);
        group.drives.push(drive);
        if (reach !== undefined) group.reach = { ...group.reach, [drive]: reach };
        if (filled) group.filled = { ...filled, ...Object.fromEntries(step.drives.map((id) => [id, 0])) };
      }
    }),
  cost: ({ plan }, after, step, { rules }) => {
    const group = groupOf(plan, step.group);
    if (!group) return noCost({});
    const before = occupied(bandsOfGroup(plan, group, rules));
    const joining = drivesOf(plan, step.drives);
    const layout = layoutOf(group.layout);
    if (layout.widening === "copies") {
      const bytes = Math.max(0, ...before.values());
      return noCost({
        hours: hoursFor(bytes, slowestRate(drivesOf(plan, [...group.drives, ...step.drives])) * REBUILD_SHARE),
        erased: [...step.drives],
        work: [
          ...group.drives.slice(0, 1).map((drive) => ({ drive, reads: bytes, writes: 0 })),
          ...step.drives.map((drive) => ({ drive, reads: 0, writes: bytes })),
        ],
        online: "slower",
      });
    }
    if (takesAnyDrive(layout)) {
      // A drive that joins parity drives is cleared first, so that the parity stays right.
      const clears = layout.dedicatedParity !== undefined && rules.parityWrites === "at-once";
      const hours =
        clears && joining.length > 0
          ? hoursFor(Math.max(...joining.map((drive) => drive.bytes)), slowestRate(joining))
          : A_FEW_MINUTES;
      return noCost({
        hours,
        erased: [...step.drives],
        work: clears ? joining.map((drive) => ({ drive: drive.id, reads: 0, writes: drive.bytes })) : [],
        undoable: false,
      });
    }
    const then = groupOf(after.plan, step.group);
    const later = then ? occupied(bandsOfGroup(after.plan, then, rules)) : before;
    return noCost({
      hours: passHours(plan, before, RESHAPE_SHARE),
      erased: [...step.drives],
      work: [
        ...group.drives.map((drive) => ({ drive, reads: before.get(drive) ?? 0, writes: before.get(drive) ?? 0 })),
        ...step.drives.map((drive) => ({ drive, reads: 0, writes: later.get(drive) ?? 0 })),
      ],
      online: "slower",
      undoable: false,
    });
  },
  say: ({ plan }, step, setting) => {
    const group = groupOf(plan, step.group);
    const quick = group && takesAnyDrive(layoutOf(group.layout));
    return {
      does: `${capital(drivesInWords(plan, step.drives, setting))} ${plural(step.drives.length, "joins", "join")} the ${group ? layoutOf(group.layout).shortName : ""} group of ${poolOfGroup(plan, step.group)?.name ?? "the pool"}.`,
      why: quick
        ? "The pool takes it in without a rewrite."
        : "All stripes are rewritten over one drive more; the space is there when that has ended.",
    };
  },
};
