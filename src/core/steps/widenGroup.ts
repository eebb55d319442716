import { occupied } from "../bands/occupied";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf, poolOfGroup } from "../box/find";
import { passHours, slowestRate } from "../box/passHours";
import { changed, takeIn } from "../box/state";
import { REBUILD_SHARE, RESHAPE_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { takesAnyDrive } from "../layouts/widens";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { plural } from "../words/counted";
import { drivesInWords } from "./checks";
import { filledOf } from "./filledOf";
import { keepArrays } from "./keepArrays";
import { BY_HAND } from "./stepMenu";
import { A_FEW_MINUTES, noCost, type StepModule } from "./stepModule";
import { checkWidening } from "./wideningChecks";

/** One or more drives more in a group: all its stripes are rewritten, and the space is there only at the end. */
export const widenGroup: StepModule<"widen-group"> = {
  kind: "widen-group",
  name: "Widen the group",
  handles: (step) => step.drives,
  rewrites: true,
  label: (step, names) => `Widen by ${names.list(step.drives)}`,
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
