import { inText } from "../layouts/inText";
import { changedBands } from "../bands/changedBands";
import { occupied } from "../bands/occupied";
import { rebuildShareOf } from "../bands/workShare";
import { underParity } from "../bands/underParity";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { passHours, slowestRate } from "../box/passHours";
import { type BoxState, changed, takeIn } from "../box/state";
import type { BoxRules, Group, Plan, StepOf } from "../document/plan";
import { RESHAPE_SHARE } from "../drives/rates";
import { layOutGroup } from "../layouts/layOutGroup";
import { roomOf } from "../drives/room";
import { shortNameOf } from "../layouts/chunks";
import { layoutOf } from "../layouts/registry";
import { workRate } from "../speeds/pace";
import { firstFillOf } from "../speeds/firstFill";
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { drivesInWords } from "./checks";
import { keepArrays } from "./keepArrays";
import { checkLevel } from "./levelChecks";
import { parityOf } from "../bands/parityOf";
import { BY_HAND } from "./stepMenu";
import { noCost, type StepModule, type StepSetting } from "./stepModule";
import { workedThrough } from "./workedThrough";
import { withoutValue } from "../records/ownValue";

/** The drives of a group after its change, in the order in which it then names them. */
function drivesAfter(group: Group, step: StepOf<"change-level">): string[] {
  const stays = group.drives.filter((drive) => !step.without?.includes(drive));
  return pathOf(group, step)?.arranges?.(stays, step.drives) ?? [...stays, ...step.drives];
}

const pathOf = (group: Group, step: StepOf<"change-level">) =>
  layoutOf(group.layout).becomes.find((path) => path.to === step.layout);

/** What is chosen about a group after its change: what the step says, else what it was; parity drives stay named. */
function optionsAfter(group: Group, step: StepOf<"change-level">, parity: readonly string[]): Group["options"] {
  const options = step.options ?? group.options;
  return {
    ...options,
    ...(pathOf(group, step)?.arranges && layoutOf(step.layout).chooses === "pairs" ? { pairs: "as-named" } : {}),
    ...(parity.length > 0 ? { parityDrives: [...parity, ...step.drives] } : {}),
  };
}

/** Of what arrays keep, that of those which there still are: a level that more drives must reach can give some up. */
function stillThere(plan: Plan, group: Group, rules: BoxRules): NonNullable<Group["kept"]> {
  const drives = drivesOf(plan, group.drives);
  const reserve = new Map(drives.map((drive) => [drive.id, roomOf(drive, rules).systemReserve]));
  const begins = layOutGroup(group, drives, rules).map(({ members, metadata }) => {
    const [first] = members;
    return first ? first.offset - (reserve.get(first.drive) ?? 0) - metadata : -1;
  });
  return (group.kept ?? []).filter(({ from }) => begins.includes(from));
}

function apply(state: BoxState, step: StepOf<"change-level">, { rules }: StepSetting): BoxState {
  const was = groupOf(state.plan, step.group);
  if (!was) return state;
  const [from, to] = [layoutOf(was.layout), layoutOf(step.layout)];
  const parity = from.dedicatedParity && to.dedicatedParity ? parityOf(bandsOfGroup(state.plan, was, rules)) : [];
  return changed(state, (plan) => {
    const group = groupOf(plan, step.group);
    if (!group) return;
    // Without a drive more or fewer the same blocks are read in another way, and none is moved.
    keepArrays(state.plan, group, rules, step.drives.length + (step.without?.length ?? 0) > 0);
    for (const drive of step.drives) takeIn(plan, drive);
    for (const drive of step.without ?? []) if (group.reach) group.reach = withoutValue(group.reach, drive);
    group.drives = drivesAfter(was, step);
    group.options = optionsAfter(was, step, parity);
    group.layout = step.layout;
    delete group.filled;
    if (!to.keepsArrays) delete group.kept;
    else if (group.kept) group.kept = stillThere(plan, group, rules);
  });
}

/**
 * Another level for a group, its heights kept: one at a time or in one go by the rules, shape and drive count checked.
 */
export const changeLevel: StepModule<"change-level"> = {
  kind: "change-level",
  name: "Change the level",
  boxWork: () => "rewrite",
  tells: ({ group, layout, drives }, names) => [
    `Tell the box to change ${names.poolOfGroup(group)} to ` +
      `${names.layout(layout)}${drives.length > 0 ? `, with ${names.drives(drives)} added` : ""}.`,
  ],
  pullsLast: () => true,
  paced: true,
  handles: (step) => step.drives,
  rewrites: true,
  rewriteAs: "level-change",
  label: (step, names) =>
    "To " +
    `${shortNameOf(layoutOf(step.layout), step.options)}${step.drives.length > 0 ? ` with ${names.list(step.drives)}` : ""}`,
  whileDegraded: "block",
  // Stopped half-way and begun again, changes that keep the size ended in wrong data.
  ifADriveFails: () =>
    "Let it go on, and neither stop it nor switch off: stopped half-way it has been seen to end in wrong data. " +
    "When it has ended, compare what matters with a backup, and replace the drive.",
  menu: BY_HAND,
  mayLower: true,
  check: (state, step, setting) => checkLevel(state, step, setting, () => apply(state, step, setting)),
  apply,
  cost: ({ plan }, after, step, { rules }) => {
    const [before, then] = [groupOf(plan, step.group), groupOf(after.plan, step.group)];
    if (!before || !then) return noCost({});
    const made = bandsOfGroup(after.plan, then, rules);
    const drives = drivesOf(after.plan, then.drives);
    const pool = poolOfGroup(plan, step.group);
    const [was, is] = [occupied(bandsOfGroup(plan, before, rules)), occupied(made)];
    if (layoutOf(step.layout).dedicatedParity) {
      const bytes = Math.max(0, ...was.values());
      return noCost({
        hours: hoursFor(bytes, workRate(slowestRate(drives), rebuildShareOf(made), rules, true)),
        erased: [...step.drives],
        work: [
          ...before.drives.map((drive) => ({ drive, reads: was.get(drive) ?? 0, writes: 0 })),
          ...step.drives.map((drive) => ({ drive, reads: 0, writes: is.get(drive) ?? 0 })),
        ],
        online: "slower",
      });
    }
    if (layoutOf(step.layout).chunked && pool) {
      const chunks = workedThrough(plan, pool, before, rules);
      const spread = workedThrough(after.plan, poolOfGroup(after.plan, step.group) ?? pool, then, rules);
      return noCost({
        hours: passHours(plan, chunks, RESHAPE_SHARE, rules, underParity(made)),
        erased: [...step.drives],
        work: [...spread].map(([drive, bytes]) => ({ drive, reads: chunks.get(drive) ?? 0, writes: bytes })),
        online: "slower",
        undoable: false,
      });
    }
    // Bands that were not there, above those that are rewritten, are filled for the first time.
    const { rewritten, become, made: fresh } = changedBands(bandsOfGroup(plan, before, rules), made);
    // Drives that join are written as far up as the bands reach that are rewritten over them.
    const joined = occupied(become);
    const through = new Map([
      ...occupied(rewritten),
      ...step.drives.map((drive) => [drive, joined.get(drive) ?? 0] as const),
    ]);
    const fill = firstFillOf(layoutOf(step.layout), fresh, drives, rules);
    return noCost({
      hours: addHours(passHours(plan, through, RESHAPE_SHARE, rules, underParity(made)), fill?.hours ?? NO_HOURS),
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
      does:
        `${poolOfGroup(plan, step.group)?.name ?? "The pool"} goes from ` +
        `${group ? inText(layoutOf(group.layout), group.options) : "its layout"} to ` +
        `${inText(layoutOf(step.layout), step.options ?? group?.options)}${joining}.`,
      why: `${capital(layoutOf(step.layout).name)}: ${layoutOf(step.layout).summary}`,
    };
  },
};
