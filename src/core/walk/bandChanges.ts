import { heightOf, type Band } from "../bands/band";
import { bandsOfGroup } from "../box/figures";
import { groupOf } from "../box/find";
import type { Plan } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";

/**
 * What becomes of a band between two moments, by its place in the later group; `gone` by its place in the earlier one.
 */
export interface BandChange {
  kind: "new" | "grown" | "wider" | "moved" | "shrunk" | "gone";
  index: number;
}

const membersOf = (band: Band) => band.members.map((member) => member.drive);
const bottomOf = (band: Band) => Math.min(...band.members.map((member) => member.offset));

/**
 * Which bands of a group grow, come, move or vanish between two moments. A band is taken for the same where it begins
 * at the same height; replaced members count as the same place.
 *
 * @param stands for a drive that was replaced, the one that came in its place
 * @example bandChanges(raid5Of4TB, raid5Of8TB, new Map()) // [{ kind: "grown", index: 0 }]
 */
export function bandChanges(
  before: readonly Band[],
  after: readonly Band[],
  stands: ReadonlyMap<string, string>,
): BandChange[] {
  const changes: BandChange[] = [];
  const matched = new Set<number>();
  after.forEach((band, index) => {
    const at = before.findIndex((old, i) => !matched.has(i) && bottomOf(old) === bottomOf(band));
    const old = before[at];
    if (!old) {
      changes.push({ kind: "new", index });
      return;
    }
    matched.add(at);
    const members = new Set(membersOf(old).map((drive) => stands.get(drive) ?? drive));
    const same = membersOf(band).filter((drive) => members.has(drive)).length;
    if (heightOf(band) > heightOf(old)) changes.push({ kind: "grown", index });
    else if (heightOf(band) < heightOf(old)) changes.push({ kind: "shrunk", index });
    else if (same < band.members.length) changes.push({ kind: "wider", index });
    else if (band.scheme.kind !== old.scheme.kind) changes.push({ kind: "moved", index });
  });
  before.forEach((_, index) => {
    if (!matched.has(index)) changes.push({ kind: "gone", index });
  });
  return changes;
}

/**
 * The same for all groups of a box that are there at both moments.
 *
 * @example changesBetween(before.state.plan, after.state.plan) // [{ group: "g1", kind: "grown", index: 0 }]
 */
export function changesBetween(before: Plan, after: Plan): (BandChange & { group: string })[] {
  const rules = rulesOf(after.box.rules);
  return after.pools
    .flatMap((pool) => pool.groups)
    .flatMap((group) => {
      const old = groupOf(before, group.id);
      if (!old || old === group) return [];
      const stands = new Map(
        old.drives.flatMap((drive, i): [string, string][] =>
          group.drives[i] !== undefined && !group.drives.includes(drive) ? [[drive, group.drives[i]]] : [],
        ),
      );
      return bandChanges(bandsOfGroup(before, old, rules), bandsOfGroup(after, group, rules), stands).map((change) => ({
        ...change,
        group: group.id,
      }));
    });
}
