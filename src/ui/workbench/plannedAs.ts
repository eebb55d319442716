import { groupOf } from "@/core/box/find";
import type { Command } from "@/core/document/command";
import { type LayoutId, type Plan, type StepBody } from "@/core/document/plan";
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
const NO_STEP = "That cannot be planned as a step. Go back to “Now” to change the box as it is.";
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

type CommandOf<K extends Command["kind"]> = Extract<Command, { kind: K }>;

const act = (what: Act): Planned => ({ kind: "act", act: what });
const steps = (...bodies: StepBody[]): Planned => ({ kind: "steps", steps: bodies });

/** A drive moved by hand: pulled, put in the place of another, or put into a free bay for the last group. */
function moved({ drive, to }: CommandOf<"move-drive">, plan: Plan): Planned {
  if ("shelf" in to)
    return groupOfDrive(plan, drive)
      ? act({ kind: "pull", drive })
      : none("Putting a free drive away is no step of a plan.");
  const occupant = driveInBay(plan, to.bay);
  const free = isFree(plan, drive);
  if (occupant && free && groupOfDrive(plan, occupant.id))
    return act({ kind: "replace", drive: occupant.id, by: drive });
  const group = plan.pools[0]?.groups.at(-1);
  if (!occupant && free && group) return act({ kind: "join", group: group.id, drives: [drive] });
  return none("Changing the places of drives is no step of a plan. Do it on the box as it is now.");
}

/** Drives taken out: a member is pulled; what stands beside a pool stands by no more. */
function left({ drives }: CommandOf<"leave-group">, plan: Plan): Planned {
  const [first, ...more] = drives;
  if (first === undefined) return asIs;
  if (more.length === 0 && groupOfDrive(plan, first)) return act({ kind: "pull", drive: first });
  return steps(...drives.map((drive): StepBody => ({ kind: "remove-spare", drive })));
}

/** An id that is neither there now nor made by another step. */
function freshId(plan: Plan, letter: "p" | "g"): string {
  const taken = new Set([
    ...plan.pools.flatMap((pool) => [pool.id, ...pool.groups.map((group) => group.id)]),
    ...plan.steps.flatMap((step) => [...("pool" in step ? [step.pool] : []), ...("group" in step ? [step.group] : [])]),
  ]);
  let n = 1;
  while (taken.has(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}

/** A group made: a further one for a pool, or the first of a new one. */
function made({ pool, layout, drives }: CommandOf<"make-group">, plan: Plan): Planned {
  const group = freshId(plan, "g");
  if (pool !== null) return steps({ kind: "add-group", pool, group, layout, drives });
  const name = `Pool ${plan.pools.length + 1}`;
  return steps({ kind: "create-group", pool: freshId(plan, "p"), group, name, layout, drives });
}

/** Drives for a group, with another layout where one is given. */
function joined(drives: string[], group: string | undefined, layout?: LayoutId): Planned {
  if (group === undefined) return none("There is no pool at this moment that the drives could join.");
  return act(layout === undefined ? { kind: "join", group, drives } : { kind: "level", group, layout, drives });
}

/** Another layout for a group, with the drives that would best join for it. */
function relaid({ group: id, layout }: CommandOf<"change-layout">, plan: Plan, selected: ReadonlySet<string>): Planned {
  const group = groupOf(plan, id);
  return group ? act({ kind: "level", group: id, layout, drives: joiners(plan, group, layout, selected) }) : asIs;
}

/** Another width for a group of chunks, on the drives that it has. */
function rewidened({ group: id, options }: CommandOf<"set-options">, plan: Plan): Planned {
  const group = groupOf(plan, id);
  if (!group || layoutOf(group.layout).chooses !== "stripe-width") return none(NO_STEP);
  return steps({ kind: "change-level", group: id, layout: group.layout, drives: [], options });
}

/**
 * What an act of the hands on the box means when it is planned at a moment instead of done at once.
 *
 * @param plan the box at the moment
 */
export function plannedAs(command: Command, plan: Plan, selected: ReadonlySet<string>): Planned {
  switch (command.kind) {
    case "move-drive":
      return moved(command, plan);
    case "seat-drives":
      return joined(command.drives, plan.pools[0]?.groups.at(-1)?.id);
    case "add-to-group":
      return joined(command.drives, command.group, command.layout);
    case "change-layout":
      return relaid(command, plan, selected);
    case "set-options":
      return rewidened(command, plan);
    case "leave-group":
      return left(command, plan);
    case "set-spare":
      return steps(...command.drives.map((drive): StepBody => ({ kind: "set-spare", pool: command.pool, drive })));
    case "make-group":
      return made(command, plan);
    default:
      return NOT_PLANNED.has(command.kind)
        ? none(NO_STEP)
        : VOLUMES.has(command.kind)
          ? none("Volumes are set up on the box as it is now; at a moment of the plan they can be grown with a step.")
          : asIs;
  }
}

/** What can be done only to the box as it is now. */
const NOT_PLANNED: ReadonlySet<Command["kind"]> = new Set(["make-groups", "take-apart", "set-helper", "set-landing"]);
const VOLUMES: ReadonlySet<Command["kind"]> = new Set(["add-volume", "edit-volume", "remove-volume"]);
