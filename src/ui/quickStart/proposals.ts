import { idOfDrive, planFrom, type Beginning } from "@/core/commands/planFrom";
import { compareDrives, type Choice } from "@/core/compare/compare";
import { shortlist } from "@/core/compare/shortlist";
import { MOST_BAYS } from "@/core/document/limits";
import type { Drive, NewDrive, Plan, RuleSetId } from "@/core/document/plan";
import { checkChosen } from "@/core/drives/checks/chosen";
import type { Finding } from "@/core/findings/finding";
import { rulesOf, ruleSets } from "@/core/rules/ruleSets";
import { NETWORKS } from "@/core/speeds/speed";
import { counted } from "@/core/words/counted";
import type { UnitFamily } from "@/core/bytes/formatBytes";

/** What somebody has said of drives and box. */
export interface Said {
  drives: readonly NewDrive[];
  bays: number;
  set: RuleSetId;
}

/** What can be made of it: the few layouts worth a look, what is to be known of the drives, or why nothing can. */
export interface Proposals {
  drives: Drive[];
  choices: Choice[];
  findings: Finding[];
  refused: string | null;
}

/** The numbers of bays that boxes are sold with. */
const SOLD_BAYS = [2, 4, 5, 6, 8, 12, 16, 24];

/**
 * The bays of a box that somebody with so many drives is likely to have.
 *
 * @example likelyBays(3, null) // 4
 */
export const likelyBays = (drives: number, mostDrives: number | null): number =>
  Math.min(SOLD_BAYS.find((bays) => bays >= Math.max(4, drives)) ?? MOST_BAYS, mostDrives ?? MOST_BAYS);

/** The drives with the ids and the bays that they get in the plan. */
const asDrives = (drives: readonly NewDrive[]): Drive[] =>
  drives.map((drive, i) => ({ ...drive, id: idOfDrive(i), place: { bay: i + 1 } }));

/** Why the drives do not go into the box; null where they do. */
function whyNot({ drives, bays, set }: Said): string | null {
  const { mostDrives } = rulesOf({ set });
  if (drives.length > MOST_BAYS)
    return (
      `A plan is of one box with up to ${MOST_BAYS} bays, and these are ${drives.length} drives. Name fewer of ` +
      "them."
    );
  if (mostDrives !== null && drives.length > mostDrives)
    return (
      `Such a box takes ${counted(mostDrives, "drive")}, and these are ${drives.length}. Choose another kind of ` +
      "box, or name fewer drives."
    );
  return drives.length > bays
    ? `${counted(drives.length, "drive")} do not fit into ${counted(bays, "bay")}. Give the box more bays, or ` +
        "name fewer drives."
    : null;
}

/** The best that can be made of some drives in a box, worked out at once. */
export function proposalsFor(said: Said, unit: UnitFamily): Proposals {
  const drives = asDrives(said.drives);
  const rules = rulesOf({ set: said.set });
  const refused = whyNot(said);
  if (refused) return { drives, choices: [], findings: [], refused };
  const { choices } = compareDrives({ drives, rules, network: NETWORKS[0].rate, splits: false });
  return { drives, choices: shortlist(choices), findings: checkChosen(drives, [], rules, unit), refused: null };
}

/**
 * What each kind of box would hold at most with at least one drive safe, in bytes; 0 where it cannot be done, and none
 * for a kind that does not take so many drives.
 */
export function heldByKind(said: Said): ReadonlyMap<RuleSetId, number | null> {
  const drives = asDrives(said.drives);
  const most = (set: RuleSetId): number | null => {
    if (drives.length > (rulesOf({ set }).mostDrives ?? MOST_BAYS)) return null;
    const { choices } = compareDrives({ drives, rules: rulesOf({ set }), network: NETWORKS[0].rate, splits: false });
    return Math.max(0, ...choices.map(({ figures }) => (figures.tolerance > 0 ? figures.usableBytes : 0)));
  };
  return new Map(ruleSets.map(({ id }) => [id, most(id)]));
}

/** The plan of what was said, with the pool that was chosen; without a choice the drives stand in their bays. */
export function planOf({ drives, bays, set }: Said, choice: Choice | null): ReturnType<typeof planFrom> {
  const place = new Map(drives.map((_, i) => [idOfDrive(i), i]));
  const groups: Beginning["groups"] = (choice?.groups ?? []).map((group) => ({
    layout: group.layout,
    drives: group.drives.flatMap((id) => place.get(id) ?? []),
  }));
  return planFrom({ name: "My box", bays, rules: { set }, drives, groups });
}

/** An empty box of the kind, for the small pictures. */
export const boxOfKind = (set: RuleSetId, bays: number): Plan["box"] => ({ name: "My box", bays, rules: { set } });
