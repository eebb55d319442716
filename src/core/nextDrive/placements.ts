import type { Bytes } from "../bytes/bytes";
import { usableOf } from "../bands/contents";
import { type Group, type Plan, type Pool, type Bus, type Drive, type Medium } from "../document/plan";
import { checkJoining } from "../drives/checks/joining";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { roomOf } from "../drives/room";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { poolReserve } from "../ledger/ledger";
import { widensByDrive } from "../layouts/widens";
import { rulesOf } from "../rules/ruleSets";
import { driveInBay } from "../box/bays";

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
  id: `thought-${n}`,
  label: "",
  bytes: placed.bytes,
  medium: placed.medium,
  bus: placed.bus,
  logicalSector: 512,
  physicalSector: 4096,
  health: { state: "good" },
  place: { shelf: true },
});

/**
 * The order in which a box takes most: first those that are added, smallest first, since a box that wants each as large
 * as the largest would refuse a small one after a large one; then those that replace, which raise the smallest.
 */
const inBestOrder = (placed: readonly Placed[]): Placed[] =>
  [...placed].sort((a, b) => Number(a.at.kind === "replace") - Number(b.at.kind === "replace") || a.bytes - b.bytes);

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
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const replaced = placed.filter(({ at }) => at.kind === "replace").length;
  if (placed.length - replaced > freeBays(plan))
    return { ok: false, reason: freeBays(plan) === 0 ? "No bay is free for it." : "There are not enough free bays." };
  const groups = pool.groups.map((group) => ({ group, drives: group.drives.flatMap((id) => driveOf.get(id) ?? []) }));
  const further: Drive[] = [];
  for (const [n, each] of inBestOrder(placed).entries()) {
    const drive = thought(each, n);
    const { at } = each;
    if (at.kind === "further-group") {
      further.push(drive);
      continue;
    }
    const target = groups.find((one) =>
      at.kind === "add" ? one.group.id === at.group : one.drives.some((member) => member.id === at.drive),
    );
    if (!target) return { ok: false, reason: "That place is no longer in the pool." };
    if (at.kind === "add") {
      if (!widensByDrive(layoutOf(target.group.layout), rules))
        return {
          ok: false,
          reason: "Your box does not widen a group. It grows by a further group, or by replacing drives.",
        };
      const [block] = checkJoining(drive, target.drives, rules, family).filter(
        (finding) => finding.severity === "block",
      );
      if (block)
        return {
          ok: false,
          reason: `Too small to join: your box wants at least ${formatBytes(Math[rules.joining === "as-largest-member" ? "max" : "min"](...target.drives.map((member) => member.bytes)), family)}.`,
        };
      target.drives = [...target.drives, drive];
    } else {
      const old = driveOf.get(at.drive);
      if (old && drive.bytes < old.bytes) return { ok: false, reason: "Smaller than the drive it would replace." };
      target.drives = target.drives.map((member) => (member.id === at.drive ? drive : member));
    }
  }
  const last = pool.groups.at(-1);
  const all: { group: Pick<Group, "layout" | "options">; drives: Drive[] }[] =
    further.length > 0 && last ? [...groups, { group: last, drives: further }] : groups;
  let data = 0;
  for (const { group, drives } of all) {
    const layout = layoutOf(group.layout);
    const wrong = wrongCount(layout, drives.length, rules, group.options);
    if (wrong) return { ok: false, reason: wrong };
    data += usableOf(
      layout.layOut(
        drives.map((drive) => roomOf(drive, rules)),
        { arrayFormat: rules.arrayFormat, options: group.options ?? {} },
      ),
    );
  }
  return { ok: true, usableBytes: data - poolReserve(data, rules.poolReserveShare) };
}

/** Every place that one more drive, or another drive, could have in a pool. */
export function placementsIn(pool: Pool): Placement[] {
  return [
    ...pool.groups.map((group): Placement => ({ kind: "add", group: group.id })),
    ...pool.groups.flatMap((group) => group.drives.map((drive): Placement => ({ kind: "replace", drive }))),
    { kind: "further-group" },
  ];
}
