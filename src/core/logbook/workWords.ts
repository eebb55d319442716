import type { BoxRules, WorkKind } from "../document/plan";

/** How a kind of work is called, what a box shows of it, and how one knows that it has ended. */
interface WorkWords {
  /** In a list of kinds, and for one that was done. */
  name: string;
  one: string;
  /** What the pages of most boxes show. */
  shows: string;
  /** What the kernel of a Linux box calls it in its list of arrays, where it is there. */
  kernel?: string;
  ended: string;
}

const WORK_WORDS: Readonly<Record<WorkKind, WorkWords>> = {
  rebuild: {
    name: "Rebuilds",
    one: "Rebuild",
    shows: "The pool is shown as degraded and rebuilding, with a percentage that rises.",
    kernel: "recovery",
    ended: "The percentage is gone, and the pool is shown as healthy, with all its drives.",
  },
  copy: {
    name: "Copies from drive to drive",
    one: "Copy from drive to drive",
    shows: "The pool stays healthy; the copy is shown with a percentage that rises.",
    kernel: "recovery",
    ended: "The percentage is gone, and the new drive is shown as part of the pool.",
  },
  rewrite: {
    name: "Widening, changing the layout, removing",
    one: "Widening, change of layout, or removal",
    shows: "The pool is shown as expanding, reshaping or migrating, with a percentage that rises.",
    kernel: "reshape",
    ended:
      "The percentage is gone, and the pool is shown as healthy, with the drives and the layout that it should have.",
  },
  "first-fill": {
    name: "First fills and new space",
    one: "First fill or new space",
    shows: "The pool can be used at once; it is shown as initialising or building, with a percentage that rises.",
    kernel: "resync",
    ended: "The percentage is gone, and the pool is shown as healthy. Only then is it protected.",
  },
  rebalance: {
    name: "Rebalances",
    one: "Rebalance",
    shows: "The pool can be used; the rebalance is shown with what is left of it.",
    ended: "The box says that the rebalance has ended, and how much it has moved.",
  },
  check: {
    name: "Checks (scrubs)",
    one: "Check (scrub)",
    shows: "The check is shown with a percentage that rises.",
    kernel: "check",
    ended: "The percentage is gone, and the box says how many errors it found: it should be none.",
  },
  "parity-update": {
    name: "Updates of the parity",
    one: "Update of the parity",
    shows: "The update prints how far it is, and how long it still takes.",
    ended: "It says that it is done, with nothing in error.",
  },
  "self-test": {
    name: "Self-tests of drives",
    one: "Self-test of a drive",
    shows: "The health page of the drive shows the test with how much is left of it.",
    ended: "The health page says that the extended self-test was completed without error.",
  },
  wipe: {
    name: "Erasing of drives",
    one: "Erasing of a drive",
    shows: "The erasing is shown with a percentage that rises.",
    ended: "The percentage is at its end, and the drive is shown as empty.",
  },
  backup: {
    name: "Backups",
    one: "Backup",
    shows: "The backup shows how much it has copied.",
    ended:
      "The backup says that it was completed without errors. Open a few files of the copy to see that they can " +
      "be read.",
  },
  restore: {
    name: "Restores from a backup",
    one: "Restore from a backup",
    shows: "The restore shows how much it has brought back.",
    ended: "The restore says that it was completed without errors. Open a few files to see that they can be read.",
  },
};

/** A kind of work in a list of kinds. */
export const workName = (work: WorkKind): string => WORK_WORDS[work].name;

/**
 * One such work that was done.
 *
 * @example oneWork("check") // "Check (scrub)"
 */
export const oneWork = (work: WorkKind): string => WORK_WORDS[work].one;

/**
 * What the box shows of a kind of work; on a box whose arrays are those of the Linux kernel, what that prints too.
 *
 * @example workShows("rebuild", rulesOf({ set: "linux-host" }))
 * // "The pool is shown as degraded …; cat /proc/mdstat prints “recovery” …"
 */
export function workShows(work: WorkKind, { arrayFormat }: Pick<BoxRules, "arrayFormat">): string {
  const { shows, kernel } = WORK_WORDS[work];
  if (!kernel || arrayFormat !== "linux-raid") return shows;
  return `${shows} On its command line, cat /proc/mdstat prints “${kernel}” with the percentage and the minutes left.`;
}

/** How one knows that a kind of work has ended. */
export const workEnded = (work: WorkKind): string => WORK_WORDS[work].ended;
