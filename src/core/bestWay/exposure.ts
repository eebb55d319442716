import { REBUILD_SHARE, sequentialRate } from "../drives/rates";
import type { BoxRules } from "../document/plan";
import { workRate } from "../speeds/pace";
import type { BoxThen, Kind, Shape } from "./boxes";
import type { Instance } from "./instance";

/** What counts of a group: its kinds the smallest first. */
type Group = Pick<Shape, "layout" | "kinds" | "tolerance">;

const lengthOf = (kinds: readonly Kind[], fromTop: number): number => kinds.at(-fromTop)?.length ?? 0;

/**
 * How much of a drive that replaces another is filled from the others: as far up as the pool uses the old one, and how
 * much of that is worked out by parity. Copies of chunks are counted as if the drive were full.
 */
function filled({ layout, kinds }: Group, old: Kind, others: readonly Kind[]): { bytes: number; byParity: number } {
  if (layout.cutsAtSizes) {
    // What only one drive reaches is not used; what two reach is mirrored.
    const bytes = Math.min(old.length, lengthOf(others, 1));
    return { bytes, byParity: Math.min(bytes, lengthOf(others, 2)) };
  }
  const bytes = layout.countsSmallest ? (kinds[0]?.length ?? 0) : old.length;
  const { copies, parity } = layout.stripe({});
  if (copies === "all") return { bytes: kinds[0]?.length ?? 0, byParity: 0 };
  return { bytes, byParity: parity > 0 ? bytes : 0 };
}

/**
 * For how long data is exposed while a drive is replaced: for as long as the new one is filled, at the rate of the
 * slowest drive that takes part, where the old one has to go first and the loss of one more would lose data meanwhile.
 *
 * @param box of how many drives
 * @param shape the group before it
 * @returns hours, as the step predicts them; in a box that copies only what is used no more than these
 */
export function exposedHours(
  { rules, bays }: Pick<Instance, "rules" | "bays">,
  box: Pick<BoxThen, "drives">,
  shape: Group,
  old: Kind,
  bought: Kind,
): number {
  const attached = rules.replacing === "old-attached" && !shape.layout.takesNoSpare && box.drives < bays;
  if (attached || shape.tolerance !== 1) return 0;
  const others = [...shape.kinds];
  others.splice(others.indexOf(old), 1);
  const rate = Math.min(bought.rate, ...others.map((each) => each.rate));
  const { bytes, byParity } = filled(shape, old, others);
  const seconds = (of: number, parity: boolean) => of / workRate(rate, REBUILD_SHARE, rules, parity);
  return (seconds(byParity, true) + seconds(bytes - byParity, false)) / 3600;
}

/** The slowest rate of all drives that the pool can have, in bytes a second. */
export const slowestOf = ({ sold, groups }: Pick<Instance, "sold" | "groups">): number =>
  Math.min(
    ...[...sold, ...groups.flatMap(({ drives }) => drives.map(({ drive }) => drive))].map(({ bytes }) =>
      sequentialRate({ bytes, medium: "hdd", bus: "sata" }),
    ),
  );

/** For how long filling what was on a drive exposes data at most, in hours. */
export const mostExposed = ({ length }: Kind, slowest: number, rules: BoxRules): number =>
  length / workRate(slowest, REBUILD_SHARE, rules, true) / 3600;
