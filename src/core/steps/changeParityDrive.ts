import { occupied } from "../bands/occupied";
import { rebuildShareOf } from "../bands/workShare";
import { freeBay } from "../box/bays";
import { bandsOfGroup } from "../box/figures";
import { driveOf, drivesOf, groupOf, poolOfGroup } from "../box/find";
import { isFree } from "../box/members";
import { slowestRate } from "../box/passHours";
import { rulesOfBox } from "../box/rulesOfBox";
import { changed } from "../box/state";
import { bayOf } from "../drives/drive";
import { roomOf } from "../drives/room";
import { fateOf } from "../failures/fate";
import { workRate } from "../speeds/pace";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { joiningFindings, missingDrives, named } from "./checks";
import { parityOf } from "../bands/parityOf";
import { rebuiltTogether } from "./rebuiltTogether";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepModule } from "./stepModule";
import { withoutValue } from "../records/ownValue";

/** A larger parity drive: it must come before any larger data drive. The old one is free afterwards. */
export const changeParityDrive: StepModule<"change-parity-drive"> = {
  kind: "change-parity-drive",
  name: "Change the parity drive",
  boxWork: () => "rebuild",
  tells: ({ drive, by }, names) => [
    `Tell the box that ${names.drive(by)} is the parity drive now, in place of ${names.drive(drive)}.`,
    "Have the parity worked out, if that does not begin by itself.",
  ],
  paced: true,
  handles: (step) => [step.by],
  label: (step, names) => `Parity drive: ${names.size(step.by)} for ${names.size(step.drive)}`,
  answers: (step) => step.drive,
  whileDegraded: "block",
  ifADriveFails: () =>
    "Until the new parity is worked out nothing stands in for a data drive. Write nothing, and keep the old " +
    "parity drive as it is: as long as nothing has changed since, it holds what is missing.",
  menu: BY_HAND,
  mayRunBeside: (step, running, plan) => rebuiltTogether(step.drive, running, plan),
  swaps: (step, plan) => {
    const [next] = drivesOf(plan, [step.by]);
    return rulesOfBox(plan).replacing === "old-attached" && next && bayOf(next) === null ? 2 : 1;
  },
  check: ({ plan, tested }, step, setting) => {
    const group = groupOf(plan, step.group);
    if (!group) return [against("block", "no-such-group", "The group is not there at this moment.")];
    const found = missingDrives(plan, [step.drive, step.by]);
    if (found.length > 0) return found;
    const bands = bandsOfGroup(plan, group, setting.rules);
    if (!parityOf(bands).includes(step.drive))
      return [
        against(
          "block",
          "no-parity-drive",
          `${capital(named(plan, step.drive, setting))} is no parity drive at this moment.`,
          [step.drive],
        ),
      ];
    const [next] = drivesOf(plan, [step.by]);
    const data = drivesOf(
      plan,
      group.drives.filter((drive) => !parityOf(bands).includes(drive)),
    );
    const others = drivesOf(
      plan,
      group.drives.filter((drive) => drive !== step.drive),
    );
    const without = new Set([step.drive, ...(setting.unready ?? [])]);
    if (setting.unready && fateOf(bands, without).kind !== "degraded")
      found.push(
        against(
          "block",
          "nothing-to-rebuild-from",
          "Another drive of the group is still being filled, which needs this one: begin when that has ended.",
          [step.drive],
        ),
      );
    const most = Math.max(0, ...data.map((drive) => roomOf(drive, setting.rules).length));
    if (!isFree(plan, step.by))
      found.push(
        against("block", "drive-taken", `${capital(named(plan, step.by, setting))} is in use at this moment.`, [
          step.by,
        ]),
      );
    if (next && roomOf(next, setting.rules).length < most)
      found.push(
        against(
          "block",
          "too-small",
          `${capital(named(plan, step.by, setting))} is smaller than a data drive; a parity drive must be at ` +
            "least as large as each of them.",
          [step.by],
        ),
      );
    return [...found, ...(next ? joiningFindings([next], others, group, setting, tested) : [])];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const group = groupOf(plan, step.group);
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      const was = groupOf(state.plan, step.group);
      if (!group || !old || !next || !was) return;
      const parity = parityOf(bandsOfGroup(state.plan, was, rules));
      group.drives[group.drives.indexOf(old.id)] = next.id;
      group.options = { ...group.options, parityDrives: parity.map((id) => (id === old.id ? next.id : id)) };
      if (group.reach) group.reach = withoutValue(group.reach, old.id);
      const bay = bayOf(old);
      const own = rules.replacing === "old-attached" ? (bayOf(next) ?? freeBay(plan) ?? bay) : bay;
      old.place = { shelf: true };
      if (own !== null) next.place = { bay: own };
      delete next.contents;
      delete next.toBuy;
    }),
  cost: ({ plan }, _after, step, { rules }) => {
    const group = groupOf(plan, step.group);
    if (!group) return noCost({});
    const bands = bandsOfGroup(plan, group, rules);
    const used = occupied(bands);
    const bytes = used.get(step.drive) ?? 0;
    const slowest = slowestRate(drivesOf(plan, [...group.drives, step.by]));
    return noCost({
      hours: hoursFor(bytes, workRate(slowest, rebuildShareOf(bands), rules, true)),
      erased: [step.by],
      work: [
        ...group.drives
          .filter((drive) => drive !== step.drive)
          .map((drive) => ({ drive, reads: used.get(drive) ?? 0, writes: 0 })),
        { drive: step.by, reads: 0, writes: bytes },
      ],
      online: "slower",
      missing: [step.drive],
      unready: [step.by],
    });
  },
  say: ({ plan }, step, setting) => ({
    does:
      `${capital(named(plan, step.by, setting))} becomes the parity drive of ` +
      `${poolOfGroup(plan, step.group)?.name ?? "the pool"} in place of ${named(plan, step.drive, setting)}.`,
    why: "No data drive may be larger than the parity drive.",
  }),
};
