import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import { wrongCount } from "../layouts/problemsOfLayout";
import type { OwnFactors } from "../logbook/ownTimes";
import { layoutOf } from "../layouts/registry";
import { predictPool } from "../prediction/predictPool";
import { poolOf, type Choice } from "./compare";
import type { ChanceSetting } from "./choiceChance";
import { figuresOf } from "./figures";
import { misfits, type Needs } from "./needs";

/** A change that would make a choice fit. */
export interface NearestChange {
  kind: "add" | "replace";
  /** How many drives, and of what size each. */
  count: number;
  bytes: Bytes;
  /** The drive that would be replaced. */
  drive?: string;
}

const like = (drive: Drive, id: string, bytes: Bytes): Drive => ({ ...drive, id, bytes });

/** The groups with other drives in them, predicted; null where a layout cannot be made of them. */
function remade(
  groups: Choice["groups"],
  drives: readonly Drive[],
  rules: BoxRules,
  network: number,
  own?: OwnFactors,
  chances?: ChanceSetting,
): Pick<Choice, "pool" | "figures"> | null {
  if (groups.some((group) => wrongCount(layoutOf(group.layout), group.drives.length, rules))) return null;
  const driveOf = new Map(drives.map((drive) => [drive.id, drive]));
  const pool = predictPool(poolOf(groups), driveOf, rules, "", "TB", undefined, own);
  return { pool, figures: figuresOf(pool, driveOf, rules, network, chances) };
}

/**
 * The nearest change that makes a choice fit the needs: one more drive, then two more (to the group that is smallest),
 * then one drive replaced, then two; each of the smallest size that does it.
 *
 * @param choice its groups; `leastBytes` is the smallest drive that may join, where the groups are there already
 * @param sizes the sizes that can be bought, in bytes
 * @param freeBays how many drives more the box takes
 * @param own how this box differs from the usual rates
 * @param chances what the chance of loss is worked out with, where the needs ask for it
 * @returns null where none of these does it, for instance because the layout bears too few failures however many drives
 * it has
 * @example nearestChange(raid5OfThree4TB, { usableBytes: 12e12 }, …)
 * // { kind: "add", count: 1, bytes: 4 000 787 030 016 }
 */
export function nearestChange(
  choice: Pick<Choice, "groups"> & { leastBytes?: Bytes },
  needs: Needs,
  sizes: readonly Bytes[],
  freeBays: number,
  drives: readonly Drive[],
  rules: BoxRules,
  network: number,
  own?: OwnFactors,
  chances?: ChanceSetting,
): NearestChange | null {
  const fits = (made: Pick<Choice, "pool" | "figures"> | null) => made !== null && misfits(made, needs).length === 0;
  const rising = [...sizes].sort((a, b) => a - b);
  const joining = rising.filter((bytes) => bytes >= (choice.leastBytes ?? 0));
  const [model] = drives;
  if (!model) return null;
  const smallestGroup = choice.groups.reduce(
    (best, group, g) => (group.drives.length < (choice.groups[best]?.drives.length ?? 0) ? g : best),
    0,
  );
  for (const count of [1, 2]) {
    if (count > freeBays) break;
    for (const bytes of joining) {
      const added = Array.from({ length: count }, (_, i) => like(model, `added ${i + 1}`, bytes));
      const groups = choice.groups.map((group, g) =>
        g === smallestGroup ? { ...group, drives: [...group.drives, ...added.map((drive) => drive.id)] } : group,
      );
      if (
        fits(
          remade(
            groups,
            [...drives, ...added],
            rules,
            network,
            own,
            needs.lossAYear === undefined ? undefined : chances,
          ),
        )
      )
        return { kind: "add", count, bytes };
    }
  }
  const members = new Set(choice.groups.flatMap((group) => group.drives));
  const bySize = drives.filter((drive) => members.has(drive.id)).sort((a, b) => a.bytes - b.bytes);
  for (const count of [1, 2]) {
    const replaced = bySize.slice(0, count);
    const [first] = replaced;
    if (!first || replaced.length < count) break;
    for (const bytes of rising.filter((size) => size > first.bytes)) {
      const after = drives.map((drive) =>
        replaced.includes(drive) && drive.bytes < bytes ? { ...drive, bytes } : drive,
      );
      if (fits(remade(choice.groups, after, rules, network, own, needs.lossAYear === undefined ? undefined : chances)))
        return { kind: "replace", count, bytes, drive: first.id };
    }
  }
  return null;
}
