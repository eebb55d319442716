import type { Band } from "../bands/band";
import { occupied } from "../bands/occupied";
import { rebuildShareOf } from "../bands/workShare";
import { underParity } from "../bands/underParity";
import { bandsOfGroup } from "../box/figures";
import { drivesOf, groupOf } from "../box/find";
import { passHours } from "../box/passHours";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Plan } from "../document/plan";
import { RESHAPE_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { addHours } from "../time/hours";
import type { StepCost } from "./stepModule";
import { ownValue } from "../records/ownValue";

/** Bands by where they begin on each drive. */
type Beginnings = ReadonlyMap<string, ReadonlyMap<Bytes, Band>>;

function beginningsOf(bands: readonly Band[]): Beginnings {
  const beginnings = new Map<string, Map<Bytes, Band>>();
  for (const band of bands)
    for (const { drive, offset } of band.members) {
      const own = beginnings.get(drive) ?? new Map<Bytes, Band>();
      beginnings.set(drive, own.set(offset, band));
    }
  return beginnings;
}

/** Bands that run over more drives than before, as they then are. Drives with files of their own join without that. */
const joinedBands = (before: Beginnings, after: readonly Band[]): Band[] =>
  after.filter(({ independent, members }) => {
    if (independent) return false;
    const was = members.map(({ drive, offset }) => before.get(drive)?.get(offset)).find((band) => band !== undefined);
    return was !== undefined && members.length > was.members.length;
  });

/** What of some bands lay on each drive before, or on the one whose place it has taken, in bytes. */
function heldBefore(
  bands: readonly Band[],
  before: Beginnings,
  stood: Readonly<Record<string, string>>,
): Map<string, Bytes> {
  const held = new Map<string, Bytes>();
  for (const { members } of bands)
    for (const { drive, offset, length } of members)
      if (before.get(ownValue(stood, drive) ?? drive)?.has(offset)) held.set(drive, (held.get(drive) ?? 0) + length);
  return held;
}

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
  const old = bandsOfGroup(before, was, rules);
  const bands = bandsOfGroup(after, is, rules);
  const [then, now] = [occupied(old), occupied(bands)];
  const gained = new Map(
    drivesOf(after, is.drives)
      .map(({ id }) => [id, (now.get(id) ?? 0) - (then.get(ownValue(stood, id) ?? id) ?? 0)] as const)
      .filter(([, bytes]) => bytes > 0),
  );
  if (gained.size === 0) return null;
  // Bands that a larger drive covers now and joins are rewritten over it; the rest of what is new is filled.
  const beginnings = beginningsOf(old);
  const joined = joinedBands(beginnings, bands);
  const moved = occupied(joined);
  const filled = new Map([...gained].map(([id, bytes]) => [id, Math.max(0, bytes - (moved.get(id) ?? 0))]));
  const rewritten = bandHours(joined, drivesOf(after, is.drives), () => RESHAPE_SHARE, rules);
  const hours = addHours(rewritten, passHours(after, filled, rebuildShareOf(bands), rules, underParity(bands)));
  // What lay on a drive of such a band before is read and written; what it gains is written.
  const held = heldBefore(joined, beginnings, stood);
  const work = is.drives.flatMap((drive) => {
    const reads = held.get(drive) ?? 0;
    const writes = (gained.get(drive) ?? 0) + reads;
    return writes > 0 ? [{ drive, reads, writes }] : [];
  });
  return { hours, work, online: "slower" };
}
