import { freeBay } from "../box/bays";
import { bandsOfGroup } from "../box/figures";
import { driveOf, groupOf, poolOfGroup } from "../box/find";
import { goneIn } from "../box/gone";
import { groupOfDrive } from "../box/members";
import { destinationOf } from "../data/destination";
import { bareIn } from "../data/precious";
import type { BoxRules, Group, LayoutId, Plan, Pool, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { mirror } from "../layouts/mirror";
import { layoutOf } from "../layouts/registry";
import { claimingFor } from "../layouts/claims";
import { takesAnyDrive, turnsOf, widensByDrive } from "../layouts/widens";
import { drivesTakenIn } from "./drivesTakenIn";
import { growSteps } from "./growSteps";
import { parityOf } from "../bands/parityOf";
import { moduleOf } from "./registry";
import { hasParitySchedule } from "../layouts/hasParitySchedule";

/** An act on the box at a moment, that is to become steps. */
export type Act =
  /** A drive put in the place of a member. */
  | { kind: "replace"; drive: string; by: string }
  /** Drives given to a group. */
  | { kind: "join"; group: string; drives: string[] }
  /** Another layout chosen for a group; the drives join with it. */
  | { kind: "level"; group: string; layout: LayoutId; drives: string[] }
  /** A member pulled out for good. */
  | { kind: "pull"; drive: string }
  /** Steps that were chosen as such, from a menu or as a mend. */
  | { kind: "steps"; title: string; steps: StepBody[] };

/** What matters about an act, to be asked in place. */
export interface ActChoices {
  /** Replacing: with the old drive attached, or pulled first. */
  attached: boolean;
  /** Joining: as a member, as a hot spare, or as a group of their own. */
  as: "member" | "spare" | "group";
  /** Test the drives that join first. */
  test: boolean;
  /** Back the pool up first. */
  backUp: boolean;
  /** Claim the space, grow the volume and the file system, rebalance: whatever the box does not do by itself. */
  grow: boolean;
}

/**
 * Whether drives that are given to a group would join it. Where groups keep their width, one drive is a copy more for a
 * mirror, and several are a group of their own.
 */
const joinsAsMembers = ({ drives }: ActOf<"join">, { layout }: Group, rules: BoxRules): boolean =>
  widensByDrive(layoutOf(layout), rules) && (drives.length === 1 || rules.widening !== "further-group");

/** The choices that a careful owner would make, where the box lets them. */
export function usualChoices(act: Act, plan: Plan, rules: BoxRules): ActChoices {
  const drive = act.kind === "replace" ? driveOf(plan, act.by) : undefined;
  const room = drive !== undefined && (bayOf(drive) !== null || freeBay(plan) !== null);
  const group = act.kind === "join" ? groupOf(plan, act.group) : undefined;
  const widens = !group || act.kind !== "join" || joinsAsMembers(act, group, rules);
  return {
    attached: act.kind === "replace" && rules.replacing === "old-attached" && room,
    as: widens ? "member" : "group",
    test: false,
    backUp:
      act.kind === "level" ||
      risksPrecious(act, plan, rules) ||
      (act.kind === "join" && widens && group !== undefined && !takesAnyDrive(layoutOf(group.layout))),
    grow: true,
  };
}

/** Whether a drive is pulled for another while precious data of its pool has no current backup. */
function risksPrecious(act: Act, plan: Plan, rules: BoxRules): boolean {
  const owner = act.kind === "replace" && rules.replacing !== "old-attached" ? groupOfDrive(plan, act.drive) : null;
  return owner !== null && bareIn(plan, owner.pool.id, plan.calendar?.start ?? null).length > 0;
}

/** A free id for a group. */
function freeGroup(plan: Plan): string {
  const taken = new Set([
    ...plan.pools.flatMap((pool) => pool.groups.map((group) => group.id)),
    ...plan.steps.flatMap((step) => ("group" in step ? [step.group] : [])),
  ]);
  let n = 1;
  while (taken.has(`g${n}`)) n += 1;
  return `g${n}`;
}

/** Where an act takes place, and what it comes to. */
interface ActSite {
  plan: Plan;
  rules: BoxRules;
  pool: Pool;
  group: Group;
  choices: ActChoices;
}

type ActOf<K extends Act["kind"]> = Extract<Act, { kind: K }>;

/** What stored chunks are spread anew by, where the layout has any. */
const balancing = ({ group }: ActSite): StepBody[] =>
  layoutOf(group.layout).chunked ? [{ kind: "rebalance", group: group.id }] : [];

function replacing(act: ActOf<"replace">, site: ActSite): StepBody[] {
  const { plan, rules, pool, group, choices } = site;
  const isParity = parityOf(bandsOfGroup(plan, group, rules)).includes(act.drive);
  if (goneIn(plan).has(act.drive)) {
    // What is gone is filled from the others; with parity by schedule its files are restored.
    const kind = hasParitySchedule(pool, rules) && !isParity ? "restore-drive" : "rebuild";
    return [{ kind, group: group.id, drive: act.drive, by: act.by }];
  }
  const own: StepBody = isParity
    ? { kind: "change-parity-drive", group: group.id, drive: act.drive, by: act.by }
    : { kind: "replace-drive", drive: act.drive, by: act.by, how: choices.attached ? "attached" : "pulled" };
  const larger = (driveOf(plan, act.by)?.bytes ?? 0) > (driveOf(plan, act.drive)?.bytes ?? 0);
  if (!choices.grow || !larger) return [own];
  if (isParity) return [own, ...balancing(site)];
  const claim: StepBody = {
    kind: "claim-space",
    group: group.id,
    ...(claimingFor(layoutOf(group.layout), rules) === "per-drive" ? { drive: act.by } : {}),
  };
  return [own, ...(rules.claiming === "by-itself" ? [] : [claim]), ...balancing(site), ...growSteps(pool, rules)];
}

function joining(act: ActOf<"join">, site: ActSite): StepBody[] {
  const { plan, rules, pool, group, choices } = site;
  const grown = choices.grow ? growSteps(pool, rules) : [];
  switch (choices.as) {
    case "spare":
      return act.drives.map((drive) => ({ kind: "set-spare", pool: pool.id, drive }));
    case "group": {
      // Two drives make a mirror, whatever the others are.
      const layout = act.drives.length === 2 ? mirror.id : group.layout;
      const own: StepBody = {
        kind: "add-group",
        pool: pool.id,
        group: freeGroup(plan),
        layout,
        drives: act.drives,
      };
      // Its space is there while it is filled for the first time.
      return [own, ...grown.map((step) => ({ ...step, together: true }))];
    }
    case "member": {
      const turns = turnsOf(act.drives, layoutOf(group.layout), rules);
      return [
        ...turns.map((drives): StepBody => ({ kind: "widen-group", group: group.id, drives })),
        ...(choices.grow ? balancing(site) : []),
        ...grown,
      ];
    }
  }
}

function stepsOf(act: Exclude<Act, { kind: "steps" }>, site: ActSite): StepBody[] {
  const { rules, pool, group, choices } = site;
  switch (act.kind) {
    case "replace":
      return replacing(act, site);
    case "join":
      return joining(act, site);
    case "level":
      return [
        { kind: "change-level", group: group.id, layout: act.layout, drives: act.drives },
        ...(choices.grow ? growSteps(pool, rules) : []),
      ];
    case "pull":
      return [{ kind: "remove-drive", drive: act.drive }];
  }
}

/** The drives that an act puts to use, which can be tested before. */
export function newDrives(act: Act): string[] {
  if (act.kind === "replace") return [act.by];
  if (act.kind === "pull") return [];
  if (act.kind !== "steps") return act.drives;
  return drivesTakenIn(act.steps);
}

/** The pool that an act is about, to back it up before; undefined where it is about none. */
export function poolOfAct(act: Act, plan: Plan): Pool | undefined {
  if (act.kind === "join" || act.kind === "level") return poolOfGroup(plan, act.group);
  if (act.kind !== "steps") return groupOfDrive(plan, act.drive)?.pool;
  return act.steps
    .filter((step) => !moduleOf(step).letsOthersBegin)
    .map((step) =>
      "pool" in step
        ? plan.pools.find((pool) => pool.id === step.pool)
        : "group" in step
          ? poolOfGroup(plan, step.group)
          : "drive" in step
            ? groupOfDrive(plan, step.drive)?.pool
            : undefined,
    )
    .find((pool) => pool !== undefined);
}

/**
 * The steps that an act comes to, with what the box wants done before and after it.
 *
 * @param plan the box at the moment of the act
 * @example stepsOfAct({ kind: "replace", drive: "d1", by: "d5" }, choices, plan, rules)
 * // [{ kind: "replace-drive", … }, { kind: "claim-space", … }]
 */
export function stepsOfAct(act: Act, choices: ActChoices, plan: Plan, rules: BoxRules): StepBody[] {
  const pool = poolOfAct(act, plan);
  const before: StepBody[] = [
    ...(choices.test ? newDrives(act).map((drive): StepBody => ({ kind: "test-drive", drive })) : []),
    ...(choices.backUp && pool ? [{ kind: "back-up", pool: pool.id, to: destinationOf(plan, pool) } as StepBody] : []),
  ];
  if (act.kind === "steps") return [...before, ...act.steps];
  const group = "group" in act ? groupOf(plan, act.group) : groupOfDrive(plan, act.drive)?.group;
  return group && pool ? [...before, ...stepsOf(act, { plan, rules, pool, group, choices })] : [];
}
