import type { Command } from "@/core/document/command";
import { type Plan, type StepBody } from "@/core/document/plan";
import { fewestDrives } from "@/core/layouts/problemsOfLayout";
import { layoutOf } from "@/core/layouts/registry";
import { rulesOf } from "@/core/rules/ruleSets";
import type { Act } from "@/core/steps/propose";
import { groupOfDrive, isFree } from "@/core/box/members";
import { driveInBay } from "@/core/box/bays";

/**
 * What a command on the box comes to when it is planned: an act to be asked about, steps, or nothing that a step does.
 */
export type Planned =
  | { kind: "act"; act: Act }
  | { kind: "steps"; steps: StepBody[] }
  | { kind: "as-it-is" }
  | { kind: "no-step"; reason: string };

const asIs: Planned = { kind: "as-it-is" };
const none = (reason: string): Planned => ({ kind: "no-step", reason });

/**
 * The drives that would best join for a level: the ones that are selected, else as few of the free ones as it takes.
 */
export function joiners(
  plan: Plan,
  group: { drives: string[] },
  layout: Parameters<typeof layoutOf>[0],
  selected: ReadonlySet<string>,
): string[] {
  const free = plan.drives.filter((drive) => isFree(plan, drive.id));
  const chosen = free.filter((drive) => selected.has(drive.id)).map((drive) => drive.id);
  if (chosen.length > 0) return chosen;
  const rules = rulesOf(plan.box.rules);
  const least = Math.min(...plan.drives.filter((drive) => group.drives.includes(drive.id)).map((drive) => drive.bytes));
  const wanted = Math.max(
    fewestDrives(layoutOf(layout), rules) - group.drives.length,
    layoutOf(layout).levelTakes ?? 0,
  );
  return free
    .filter((drive) => drive.bytes >= least && drive.health.state === "good")
    .sort((a, b) => a.bytes - b.bytes)
    .slice(0, Math.max(0, wanted))
    .map((drive) => drive.id);
}

/**
 * What an act of the hands on the box means when it is planned at a moment instead of done at once.
 *
 * @param plan the box at the moment
 */
export function plannedAs(command: Command, plan: Plan, selected: ReadonlySet<string>): Planned {
  switch (command.kind) {
    case "move-drive": {
      const owner = groupOfDrive(plan, command.drive);
      if ("shelf" in command.to)
        return owner
          ? { kind: "act", act: { kind: "pull", drive: command.drive } }
          : none("Putting a free drive away is no step of a plan.");
      const occupant = driveInBay(plan, command.to.bay);
      if (occupant && isFree(plan, command.drive) && groupOfDrive(plan, occupant.id))
        return { kind: "act", act: { kind: "replace", drive: occupant.id, by: command.drive } };
      const [pool] = plan.pools;
      const group = pool?.groups.at(-1);
      if (!occupant && isFree(plan, command.drive) && group)
        return { kind: "act", act: { kind: "join", group: group.id, drives: [command.drive] } };
      return none("Changing the places of drives is no step of a plan. Do it on the box as it is now.");
    }
    case "seat-drives":
    case "add-to-group": {
      const group = command.kind === "add-to-group" ? command.group : plan.pools[0]?.groups.at(-1)?.id;
      if (group === undefined) return none("There is no pool at this moment that the drives could join.");
      return { kind: "act", act: { kind: "join", group, drives: command.drives } };
    }
    case "change-layout": {
      const group = plan.pools.flatMap((pool) => pool.groups).find((each) => each.id === command.group);
      return group
        ? {
            kind: "act",
            act: {
              kind: "level",
              group: command.group,
              layout: command.layout,
              drives: joiners(plan, group, command.layout, selected),
            },
          }
        : asIs;
    }
    case "leave-group":
      return command.drives.length === 1 && command.drives[0] !== undefined && groupOfDrive(plan, command.drives[0])
        ? { kind: "act", act: { kind: "pull", drive: command.drives[0] } }
        : command.drives.length > 0
          ? { kind: "steps", steps: command.drives.map((drive) => ({ kind: "remove-spare", drive })) }
          : asIs;
    case "set-spare":
      return {
        kind: "steps",
        steps: command.drives.map((drive) => ({ kind: "set-spare", pool: command.pool, drive })),
      };
    case "make-group": {
      // Neither what is there now nor what another step makes.
      const taken = new Set([
        ...plan.pools.flatMap((pool) => [pool.id, ...pool.groups.map((group) => group.id)]),
        ...plan.steps.flatMap((step) => [
          ...("pool" in step ? [step.pool] : []),
          ...("group" in step ? [step.group] : []),
        ]),
      ]);
      const freeId = (letter: string) =>
        Array.from({ length: 50 }, (_, i) => `${letter}${i + 1}`).find((id) => !taken.has(id)) ?? `${letter}99`;
      if (command.pool !== null)
        return {
          kind: "steps",
          steps: [
            {
              kind: "add-group",
              pool: command.pool,
              group: freeId("g"),
              layout: command.layout,
              drives: command.drives,
            },
          ],
        };
      return {
        kind: "steps",
        steps: [
          {
            kind: "create-group",
            pool: freeId("p"),
            group: freeId("g"),
            name: `Pool ${plan.pools.length + 1}`,
            layout: command.layout,
            drives: command.drives,
          },
        ],
      };
    }
    case "make-groups":
    case "take-apart":
    case "set-options":
    case "set-helper":
    case "set-landing":
      return none("That cannot be planned as a step. Go back to “Now” to change the box as it is.");
    case "add-volume":
    case "edit-volume":
    case "remove-volume":
      return none("Volumes are set up on the box as it is now; at a moment of the plan they can be grown with a step.");
    default:
      return asIs;
  }
}
