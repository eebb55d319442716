import type { LayoutId, BoxRules } from "../document/plan";

/** A change of level as it is asked for. */
export interface LevelChange {
  from: LayoutId;
  to: LayoutId;
  /** How many drives the group has, join and leave. */
  drives: number;
  joining: number;
  leaving: number;
  /** Whether all its drives are of one size. */
  equal: boolean;
}

/** A level change that a box can make in one go, and what it wants. */
interface Path {
  from: LayoutId;
  to: LayoutId;
  /** Why it does not go with so many drives, or null. */
  refuses: (change: LevelChange) => string | null;
  /** Only the kernel's RAID driver makes it. */
  linuxOnly?: true;
}

const fits = (ok: boolean, reason: string) => (ok ? null : reason);

/** Measured on the kernel's RAID driver; the other boxes make those that add protection. */
const PATHS: readonly Path[] = [
  {
    from: "raid1",
    to: "raid5",
    refuses: ({ drives, leaving }) =>
      fits(
        drives === 2 && leaving === 0,
        drives > 2
          ? "A mirror of more than two is refused: bring it to two drives first."
          : "Only a mirror of two becomes single parity.",
      ),
  },
  {
    from: "raid5",
    to: "raid6",
    refuses: ({ joining, leaving }) =>
      fits(joining >= 1 && leaving === 0, "Double parity needs a drive more: on the same drives it is refused."),
  },
  {
    from: "raid6",
    to: "triple-parity",
    refuses: ({ joining, leaving }) => fits(joining >= 1 && leaving === 0, "Triple parity needs a drive more."),
  },
  {
    from: "raid6",
    to: "raid5",
    linuxOnly: true,
    refuses: ({ joining, leaving }) =>
      fits(joining === 0 && leaving === 1, "Single parity takes one drive fewer: say which leaves."),
  },
  {
    from: "raid5",
    to: "raid0",
    linuxOnly: true,
    refuses: ({ joining, leaving }) =>
      fits(joining === 0 && leaving === 1, "A stripe takes one drive fewer: say which leaves."),
  },
  {
    from: "raid5",
    to: "raid1",
    linuxOnly: true,
    refuses: ({ drives, joining, leaving }) =>
      fits(drives === 2 && joining + leaving === 0, "Only single parity of two drives becomes a mirror."),
  },
  {
    from: "raid0",
    to: "raid5",
    linuxOnly: true,
    refuses: ({ joining, leaving, equal }) =>
      fits(
        equal && joining === 1 && leaving === 0,
        equal ? "Single parity needs one drive more." : "A stripe over drives of different sizes cannot be changed.",
      ),
  },
  {
    from: "raid0",
    to: "raid10",
    linuxOnly: true,
    refuses: ({ drives, joining, leaving, equal }) =>
      fits(
        equal && joining === drives && leaving === 0,
        equal
          ? "Striped mirrors need as many drives again."
          : "A stripe over drives of different sizes cannot be changed.",
      ),
  },
  {
    from: "raid10",
    to: "raid0",
    linuxOnly: true,
    refuses: ({ drives, joining, leaving }) =>
      fits(
        drives % 2 === 0 && joining === 0 && leaving === drives / 2,
        "A stripe keeps one drive of each pair: say which leave.",
      ),
  },
  { from: "hybrid-1", to: "hybrid-2", refuses: ({ leaving }) => fits(leaving === 0, "No drive can leave with it.") },
  {
    from: "parity-drive-1",
    to: "parity-drive-2",
    refuses: ({ joining, leaving }) => fits(joining === 1 && leaving === 0, "The second parity drive is a drive more."),
  },
  ...(["copies-2", "copies-3", "chunk-parity"] as const).flatMap((from) =>
    (["copies-2", "copies-3", "chunk-parity"] as const)
      .filter((to) => to !== from)
      .map((to): Path => ({ from, to, refuses: ({ leaving }) => fits(leaving === 0, "No drive can leave with it.") })),
  ),
];

/** The levels in the order in which protection is added. */
const LADDER: readonly LayoutId[] = ["raid1", "raid5", "raid6", "triple-parity"];

/** What stands against a change of level: nothing, that it goes only by way of others, or that there is no path. */
export type LevelVerdict =
  | { kind: "possible" }
  | { kind: "refused"; reason: string }
  | { kind: "by-way-of"; levels: LayoutId[] }
  | { kind: "no-path" };

/**
 * Whether a box makes a change of level, by its rules and by what the kernel's RAID driver was measured to do.
 *
 * @example levelVerdict({ from: "raid1", to: "raid6", drives: 2, joining: 2, leaving: 0, equal: true }, { levelChanges: "one-at-a-time", … }) // { kind: "by-way-of", levels: ["raid5", "raid6"] }
 */
export function levelVerdict(change: LevelChange, rules: Pick<BoxRules, "levelChanges" | "arrayFormat">): LevelVerdict {
  if (rules.levelChanges === "none") return { kind: "no-path" };
  const path = PATHS.find(
    (each) =>
      each.from === change.from && each.to === change.to && (!each.linuxOnly || rules.arrayFormat === "linux-raid"),
  );
  if (path) {
    const reason = path.refuses(change);
    return reason === null ? { kind: "possible" } : { kind: "refused", reason };
  }
  const [from, to] = [LADDER.indexOf(change.from), LADDER.indexOf(change.to)];
  if (from < 0 || to <= from + 1) return { kind: "no-path" };
  if (change.from === "raid1" && change.drives !== 2)
    return { kind: "refused", reason: "A mirror of more than two is refused: bring it to two drives first." };
  if (rules.levelChanges === "one-at-a-time") return { kind: "by-way-of", levels: LADDER.slice(from + 1, to + 1) };
  return change.joining >= to - from && change.leaving === 0
    ? { kind: "possible" }
    : { kind: "refused", reason: `It needs ${to - from} drives more.` };
}
