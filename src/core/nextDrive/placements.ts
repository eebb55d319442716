import { claimed, withKept } from "../box/arrays";
import { driveInBay } from "../box/bays";
import { usableOfGroup } from "../box/figures";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { type BoxRules, type Bus, type Drive, type Group, type Medium, type Plan, type Pool } from "../document/plan";
import { checkJoining, leastToJoin } from "../drives/checks/joining";
import { roomOf } from "../drives/room";
import { parityDrivesOf } from "../layouts/parityDrive";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { rulesForJoining } from "../layouts/joins";
import { widensByDrive } from "../layouts/widens";
import { poolReserve } from "../ledger/ledger";
import { rulesOf } from "../rules/ruleSets";
import { usualDrive } from "../drives/usualDrive";

/** Where a bought drive can go: into a group as one more, in the place of a drive, or into a further group. */
export type Placement = { kind: "add"; group: string } | { kind: "replace"; drive: string } | { kind: "further-group" };

/** A drive that is thought of, and where it would go. */
export interface Placed {
  bytes: Bytes;
  medium: Medium;
  bus: Bus;
  at: Placement;
}

/** What a pool would hold, or why the box would not do it. */
export type Outcome = { ok: true; usableBytes: Bytes } | { ok: false; reason: string };

/** How many bays are free. */
export function freeBays(plan: Plan): number {
  return Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter((bay) => driveInBay(plan, bay) === null).length;
}

const thought = (placed: Placed, n: number): Drive => ({
  ...usualDrive(placed),
  id: `thought-${n}`,
  place: { shelf: true },
});

/**
 * The order in which a box takes most: first those that are added, smallest first, since a box that wants each as large
 * as the largest would refuse a small one after a large one; then those that replace, which raise the smallest.
 */
const inBestOrder = (placed: readonly Placed[]): Placed[] =>
  [...placed].sort((a, b) => Number(a.at.kind === "replace") - Number(b.at.kind === "replace") || a.bytes - b.bytes);

/** A group of a pool, or a further one, with the drives that it has, or would have. */
interface Seat {
  group: Group;
  drives: Drive[];
}

/**
 * What a group would hold on other drives, all their space claimed: its arrays and bands keep what they have. A drive
 * that is larger than the parity drive becomes that itself, and the old one a data drive.
 */
function usableOfSeat(plan: Plan, pool: Pool, { group, drives }: Seat, rules: BoxRules): Bytes {
  const { reach: _claimed, filled: _balanced, ...as } = withKept(plan, group, rules);
  const parity = parityDrivesOf(
    drives.map((drive) => roomOf(drive, rules)),
    layoutOf(group.layout).dedicatedParity ?? 0,
  );
  const there = {
    ...plan,
    drives: [...plan.drives.filter(({ id }) => !drives.some((each) => each.id === id)), ...drives],
  };
  const then: Group = {
    ...as,
    drives: drives.map((drive) => drive.id),
    ...(parity.length > 0 ? { options: { ...group.options, parityDrives: parity } } : {}),
  };
  return usableOfGroup(there, claimed(there, pool, then, rules), rules);
}

/** A drive more for a group, or why the box does not take it. */
function joined(plan: Plan, pool: Pool, { group, drives }: Seat, drive: Drive, family: UnitFamily): Drive[] | string {
  const rules = rulesOf(plan.box.rules);
  const layout = layoutOf(group.layout);
  if (!widensByDrive(layout, rules))
    return "Your box does not widen a group. It grows by another group, or by replacing drives.";
  const wants = rulesForJoining(layout, rules);
  const refused = checkJoining(drive, drives, wants, family).some((finding) => finding.severity === "block");
  if (refused) return `Too small to join: your box wants at least ${formatBytes(leastToJoin(drives, wants), family)}.`;
  const more = [...drives, drive];
  // Bands stay cut where they are: a drive that covers none of them whole is never taken in.
  const { cutsAtSizes } = layout;
  const usable = (members: Drive[]) => usableOfSeat(plan, pool, { group, drives: members }, rules);
  return cutsAtSizes && usable(more) <= usable(drives)
    ? "It would bring nothing: it does not reach a height at which the group is cut."
    : more;
}

/** A drive in the place of a member, or why it does not fit there. */
function replaced({ drives }: Seat, old: string, drive: Drive): Drive[] | string {
  const member = drives.find((each) => each.id === old);
  if (member && drive.bytes < member.bytes) return "Smaller than the drive it would replace.";
  return drives.map((each) => (each.id === old ? drive : each));
}

/** Seats drives in the groups of a pool, or says why one of them cannot be. */
function seat(pool: Pool, plan: Plan, placed: readonly Placed[], rules: BoxRules, family: UnitFamily): Seat[] | string {
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const seats = pool.groups.map((group): Seat => ({
    group,
    drives: group.drives.flatMap((id) => driveOf.get(id) ?? []),
  }));
  const further: Drive[] = [];
  for (const [n, each] of inBestOrder(placed).entries()) {
    const drive = thought(each, n);
    const { at } = each;
    if (at.kind === "further-group") {
      further.push(drive);
      continue;
    }
    const target = seats.find((one) =>
      at.kind === "add" ? one.group.id === at.group : one.drives.some((member) => member.id === at.drive),
    );
    if (!target) return "That place is no longer in the pool.";
    const drives = at.kind === "add" ? joined(plan, pool, target, drive, family) : replaced(target, at.drive, drive);
    if (typeof drives === "string") return drives;
    target.drives = drives;
  }
  const last = pool.groups.at(-1);
  if (further.length === 0 || !last) return seats;
  const anew: Group = {
    id: "thought",
    layout: last.layout,
    drives: [],
    ...(last.options ? { options: last.options } : {}),
  };
  return [...seats, { group: anew, drives: further }];
}

/**
 * What a pool would hold with some drives more, or others in their place, under the box's rules and in its free bays.
 * Space that has to be claimed or grown into is counted as claimed and grown.
 *
 * @param placed in any order; the box gets them in the one in which it takes most
 * @param family the units in which a refusal speaks
 * @example usableWith(clinic, clinic.pools[0], [{ bytes: twelveTB, medium: "hdd", bus: "sata", at: { kind: "replace", drive: "d1" } }])
 */
export function usableWith(plan: Plan, pool: Pool, placed: readonly Placed[], family: UnitFamily = "TB"): Outcome {
  const rules = rulesOf(plan.box.rules);
  const more = placed.filter(({ at }) => at.kind !== "replace").length;
  if (more > freeBays(plan))
    return { ok: false, reason: freeBays(plan) === 0 ? "No bay is free for it." : "There are not enough free bays." };
  const seats = seat(pool, plan, placed, rules, family);
  if (typeof seats === "string") return { ok: false, reason: seats };
  let data = 0;
  for (const { group, drives } of seats) {
    const layout = layoutOf(group.layout);
    const wrong = wrongCount(layout, drives.length, rules, group.options);
    if (wrong) return { ok: false, reason: wrong };
    data += usableOfSeat(plan, pool, { group, drives }, rules);
  }
  return { ok: true, usableBytes: data - poolReserve(data, rules) };
}

/** Every place that one more drive, or another drive, could have in a pool. */
export function placementsIn(pool: Pool): Placement[] {
  return [
    ...pool.groups.map((group): Placement => ({ kind: "add", group: group.id })),
    ...pool.groups.flatMap((group) => group.drives.map((drive): Placement => ({ kind: "replace", drive }))),
    { kind: "further-group" },
  ];
}
