import { inText } from "../layouts/inText";
import { changedBands } from "../bands/changedBands";
import { occupied } from "../bands/occupied";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { slowestRate } from "../box/passHours";
import { changed, takeIn } from "../box/state";
import type { BoxRules, Plan, StepOf } from "../document/plan";
import { REBUILD_SHARE, RESHAPE_SHARE } from "../drives/rates";
import type { Widening } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { takesAnyDrive } from "../layouts/widens";
import { bandHours } from "../speeds/bandHours";
import { workRate } from "../speeds/pace";
import { firstFillOf } from "../speeds/firstFill";
import { addHours, hoursFor, NO_HOURS } from "../time/hours";
import { capital } from "../words/capital";
import { oneOrMany, plural } from "../words/counted";
import { drivesInWords } from "./checks";
import { filledOf } from "./filledOf";
import { keepArrays } from "./keepArrays";
import { BY_HAND } from "./stepMenu";
import { A_FEW_MINUTES, noCost, type StepCost, type StepModule } from "./stepModule";
import { checkWidening } from "./wideningChecks";

/** Bands that get wider are rewritten, those that are new are filled, and what lies as before is left as it is. */
function costOfRewrite(before: Plan, after: Plan, step: StepOf<"widen-group">, rules: BoxRules): StepCost {
  const [was, is] = [groupOf(before, step.group), groupOf(after, step.group)];
  if (!was || !is) return noCost({});
  const drives = drivesOf(after, is.drives);
  const bands = bandsOfGroup(after, is, rules);
  const { rewritten, become, made } = changedBands(bandsOfGroup(before, was, rules), bands);
  const fill = firstFillOf(layoutOf(is.layout), made, drives, rules);
  const [moved, later] = [occupied(rewritten), occupied(bands)];
  const work = [
    ...was.drives.map((drive) => {
      const [bytes, filled] = [moved.get(drive) ?? 0, fill?.work.find((each) => each.drive === drive)];
      return { drive, reads: bytes + (filled?.reads ?? 0), writes: bytes + (filled?.writes ?? 0) };
    }),
    ...step.drives.map((drive) => ({ drive, reads: 0, writes: later.get(drive) ?? 0 })),
  ].filter(({ reads, writes }) => reads + writes > 0);
  const hours = addHours(
    bandHours(become, drives, () => RESHAPE_SHARE, rules),
    fill?.hours ?? NO_HOURS,
  );
  return noCost({
    ...(work.length > 0 ? { hours, work, online: "slower" } : {}),
    erased: [...step.drives],
    undoable: false,
  });
}

/** One or more drives more in a group: all its stripes are rewritten, and the space is there only at the end. */
export const widenGroup: StepModule<"widen-group"> = {
  kind: "widen-group",
  name: "Widen the group",
  boxWork: () => "rewrite",
  tells: ({ group, drives }, names) => [`Add ${names.drives(drives)} to ${names.poolOfGroup(group)}.`],
  paced: true,
  handles: (step) => step.drives,
  rewrites: true,
  rewriteAs: "widening",
  label: (step, names) => `Widen by ${names.list(step.drives)}`,
  whileDegraded: "block",
  // Parity and striped mirrors that lost a drive meanwhile went on where they were, and kept all data.
  ifADriveFails: (step, plan) =>
    layoutOf(groupOf(plan, step.group)?.layout ?? "raid5").widening === "rewrites"
      ? "Let it go on: it ends without the drive, with all data, as long as no more fail than the group " +
        "survives. Do not switch off, and replace the drive only when it has ended."
      : "Let it go on, and replace the drive when it has ended.",
  menu: BY_HAND,
  check: checkWidening,
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const group = groupOf(plan, step.group);
      const pool = poolOfGroup(plan, step.group);
      if (!group || !pool) return;
      const layout = layoutOf(group.layout);
      const filled = layout.chunked ? filledOf(plan, pool, group, rules) : null;
      keepArrays(state.plan, group, rules, layout.widening === "rewrites");
      for (const drive of step.drives) {
        takeIn(plan, drive);
        group.drives.push(drive);
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
      const slowest = slowestRate(drivesOf(plan, [...group.drives, ...step.drives]));
      return noCost({
        hours: hoursFor(bytes, workRate(slowest, REBUILD_SHARE, rules, false)),
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
        // A chunk pool lets a drive go again; what it holds is spread over the others.
        undoable: layout.chunked === true,
      });
    }
    return costOfRewrite(plan, after.plan, step, rules);
  },
  say: ({ plan }, step, setting) => {
    const group = groupOf(plan, step.group);
    const why: Record<Widening, string> = {
      joins: "The pool takes it in without a rewrite.",
      copies:
        `${plural(step.drives.length, "Another mirror copy is", "More mirror copies are")} written: no space ` +
        "comes, and the loss of more drives is survived.",
      rewrites:
        `All stripes are rewritten over ${oneOrMany(step.drives.length, "one drive", "drives")} more; the space ` +
        "is there when that has ended.",
      never: "Its drives would hold more together.",
    };
    return {
      does:
        `${capital(drivesInWords(plan, step.drives, setting))} ${plural(step.drives.length, "joins", "join")} ` +
        `the ${group ? inText(layoutOf(group.layout)) : ""} group of ` +
        `${poolOfGroup(plan, step.group)?.name ?? "the pool"}.`,
      why: why[group ? layoutOf(group.layout).widening : "never"],
    };
  },
};
