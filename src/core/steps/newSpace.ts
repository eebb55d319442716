import type { Band } from "../bands/band";
import { occupied } from "../bands/occupied";
import { rebuildShareOf } from "../bands/workShare";
import { underParity } from "../bands/underParity";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf } from "../box/find";
import { passHours } from "../box/passHours";
import type { BoxRules, Plan } from "../document/plan";
import { RESHAPE_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { addHours } from "../time/hours";
import type { StepCost } from "./stepModule";
import { ownValue } from "../records/ownValue";

/** Bands that run over more drives than before, as they then are. */
const joinedBands = (
  before: readonly Band[],
  after: readonly Band[],
  stood: Readonly<Record<string, string>>,
): Band[] =>
  after.filter((band) => {
    // Drives with files of their own join without that.
    if (band.independent) return false;
    const own = new Set(band.members.map(({ drive }) => ownValue(stood, drive) ?? drive));
    const was = before.find(({ members }) =>
      members.some(({ drive, offset }) => band.members.some((each) => each.drive === drive && each.offset === offset)),
    );
    return was !== undefined && own.size > was.members.length && was.members.every(({ drive }) => own.has(drive));
  });

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
  // Bands that a larger drive covers now and joins are rewritten over it; the rest of what is new is filled.
  const joined = joinedBands(bandsOfGroup(before, was, rules), bands, stood);
  const moved = occupied(joined);
  const bytes = new Map(work.map(({ drive, writes }) => [drive, Math.max(0, writes - (moved.get(drive) ?? 0))]));
  const rewritten = bandHours(joined, drivesOf(after, is.drives), () => RESHAPE_SHARE, rules);
  const hours = addHours(rewritten, passHours(after, bytes, rebuildShareOf(bands), rules, underParity(bands)));
  return { hours, work, online: "slower" };
}
