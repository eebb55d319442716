import { occupied } from "../bands/occupied";
import { underParity } from "../bands/underParity";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf } from "../box/find";
import { passHours } from "../box/passHours";
import type { BoxRules, Plan } from "../document/plan";
import { REBUILD_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import type { StepCost } from "./stepModule";
import { ownValue } from "../records/ownValue";

/**
 * What it takes to make the space redundant that a group has gained on its own drives: copies and parity are written
 * into it. Chunks get theirs when something is stored in them, and a box that copies only what is used has nothing to
 * copy there yet.
 *
 * @param stood for a drive that replaces one, the one whose place it has taken
 * @returns nothing where nothing is written
 */
export function costOfNewSpace(
  before: Plan,
  after: Plan,
  group: string,
  rules: BoxRules,
  stood: Readonly<Record<string, string>> = {},
): Pick<StepCost, "hours" | "work" | "online"> | null {
  const [was, is] = [groupOf(before, group), groupOf(after, group)];
  if (!was || !is) return null;
  const layout = layoutOf(is.layout);
  if (layout.chunked || rules.rebuilding === "used-only" || layout.nominalTolerance(is.options ?? {}) === 0)
    return null;
  const bands = bandsOfGroup(after, is, rules);
  const [then, now] = [occupied(bandsOfGroup(before, was, rules)), occupied(bands)];
  const work = drivesOf(after, is.drives)
    .map(({ id }) => ({ drive: id, reads: 0, writes: (now.get(id) ?? 0) - (then.get(ownValue(stood, id) ?? id) ?? 0) }))
    .filter(({ writes }) => writes > 0);
  if (work.length === 0) return null;
  const bytes = new Map(work.map(({ drive, writes }) => [drive, writes]));
  return { hours: passHours(after, bytes, REBUILD_SHARE, rules, underParity(bands)), work, online: "slower" };
}
