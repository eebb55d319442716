import { destinationOf } from "../data/destination";
import { bareIn } from "../data/precious";
import type { Plan, LayoutId, BoxRules, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { layoutOf } from "../layouts/registry";
import { takesAnyDrive, widensByDrive } from "../layouts/widens";
import { mirror } from "../layouts/mirror";
import { growSteps } from "./growSteps";
import { freeBay } from "../box/bays";
import { driveOf, groupOf, poolOfGroup } from "../box/find";
import { bandsOfGroup } from "../box/figures";
import { groupOfDrive } from "../box/members";

/** An act on the box at a moment, that is to become steps. */
export type Act =
  /** A drive put in the place of a member. */
  | { kind: "replace"; drive: string; by: string }
  /** Drives given to a group. */
  | { kind: "join"; group: string; drives: string[] }
  /** Another layout chosen for a group; the drives join with it. */
  | { kind: "level"; group: string; layout: LayoutId; drives: string[] }
  /** A member pulled out for good. */
  | { kind: "pull"; drive: string };

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

/** The choices that a careful owner would make, where the box lets them. */
export function usualChoices(act: Act, plan: Plan, rules: BoxRules): ActChoices {
  const drive = act.kind === "replace" ? driveOf(plan, act.by) : undefined;
  const room = drive !== undefined && (bayOf(drive) !== null || freeBay(plan) !== null);
  const group = act.kind === "join" ? groupOf(plan, act.group) : undefined;
  const widens = !group || widensByDrive(layoutOf(group.layout), rules);
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

/**
 * The steps that an act comes to, with what the box wants done before and after it.
 *
 * @param plan the box at the moment of the act
 * @example stepsOfAct({ kind: "replace", drive: "d1", by: "d5" }, choices, plan, rules) // [{ kind: "replace-drive", … }, { kind: "claim-space", … }]
 */
export function stepsOfAct(act: Act, choices: ActChoices, plan: Plan, rules: BoxRules): StepBody[] {
  const owner = act.kind === "replace" || act.kind === "pull" ? groupOfDrive(plan, act.drive) : null;
  const groupId = owner?.group.id ?? ("group" in act ? act.group : "");
  const group = groupOf(plan, groupId);
  const pool = poolOfGroup(plan, groupId);
  if (!group || !pool) return [];
  const joining = act.kind === "replace" ? [act.by] : act.kind === "pull" ? [] : act.drives;
  const before: StepBody[] = [
    ...(choices.test ? joining.map((drive): StepBody => ({ kind: "test-drive", drive })) : []),
    ...(choices.backUp ? [{ kind: "back-up", pool: pool.id, to: destinationOf(plan, pool) } as StepBody] : []),
  ];
  const grown = growSteps(pool, rules);
  const chunks = layoutOf(group.layout).chunked;
  switch (act.kind) {
    case "replace": {
      const bottom = bandsOfGroup(plan, group, rules)[0];
      const isParity =
        bottom?.scheme.kind === "dedicated-parity" &&
        bottom.members.slice(-bottom.scheme.parity).some((member) => member.drive === act.drive);
      const larger = (driveOf(plan, act.by)?.bytes ?? 0) > (driveOf(plan, act.drive)?.bytes ?? 0);
      const claim: StepBody[] =
        !larger || isParity || rules.claiming === "by-itself"
          ? []
          : [{ kind: "claim-space", group: group.id, ...(rules.claiming === "per-drive" ? { drive: act.by } : {}) }];
      const own: StepBody = isParity
        ? { kind: "change-parity-drive", group: group.id, drive: act.drive, by: act.by }
        : { kind: "replace-drive", drive: act.drive, by: act.by, how: choices.attached ? "attached" : "pulled" };
      return [
        ...before,
        own,
        ...(choices.grow && larger
          ? [
              ...claim,
              ...(chunks ? [{ kind: "rebalance", group: group.id } as StepBody] : []),
              ...(isParity ? [] : grown),
            ]
          : []),
      ];
    }
    case "join": {
      if (choices.as === "spare")
        return [...before, ...act.drives.map((drive): StepBody => ({ kind: "set-spare", pool: pool.id, drive }))];
      if (choices.as === "group")
        return [
          ...before,
          {
            kind: "add-group",
            pool: pool.id,
            group: freeGroup(plan),
            layout: act.drives.length === 2 ? mirror.id : group.layout,
            drives: act.drives,
          },
          ...(choices.grow ? grown : []),
        ];
      const widening: StepBody[] =
        rules.widening === "one-drive"
          ? act.drives.map((drive) => ({ kind: "widen-group", group: group.id, drives: [drive] }))
          : [{ kind: "widen-group", group: group.id, drives: act.drives }];
      return [
        ...before,
        ...widening,
        ...(choices.grow ? [...(chunks ? [{ kind: "rebalance", group: group.id } as StepBody] : []), ...grown] : []),
      ];
    }
    case "level":
      return [
        ...before,
        { kind: "change-level", group: group.id, layout: act.layout, drives: act.drives },
        ...(choices.grow ? grown : []),
      ];
    case "pull":
      return [...before, { kind: "remove-drive", drive: act.drive }];
  }
}
