import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";

/** For how long after an act it is looked whether the focus is on something, in milliseconds: parts load meanwhile. */
const LOOKS_MS = 2500;
/** From when on a heading will do, where the result itself is not on the page. */
const HEADING_MS = 1500;
const EVERY_MS = 50;

/** Whether the focus is on nothing: what had it has gone, or can no longer be used. */
function isLost(): boolean {
  const active = document.activeElement;
  return active === null || active === document.body || active.matches(":disabled");
}

/** Headings take the focus only when they are given it. */
function focusOn(target: HTMLElement | null): void {
  if (target && target.tabIndex < 0) target.tabIndex = -1;
  target?.focus();
}

/**
 * Gives the focus to what an act has led to, whenever it is on nothing: what was pressed has often gone by then. Menus
 * and dialogs that close give it back first, and what is still there keeps it.
 *
 * @param find the result of the act, null while it is not on the page
 * @returns ends the looking
 */
export function landFocus(find: () => HTMLElement | null): () => void {
  const begun = Date.now();
  const look = () => {
    const since = Date.now() - begun;
    if (isLost() && !document.querySelector('[role="dialog"],[role="menu"]'))
      focusOn(find() ?? (since > HEADING_MS ? headingOf() : null));
    if (since < LOOKS_MS) timer = setTimeout(look, EVERY_MS);
  };
  let timer = setTimeout(look, EVERY_MS);
  return () => clearTimeout(timer);
}

const first = (selector: string): HTMLElement | null => document.querySelector<HTMLElement>(selector);
const marked = (name: "drive" | "group" | "step", id: string | undefined): HTMLElement | null =>
  id === undefined ? null : first(`[data-${name}="${CSS.escape(id)}"]`);

/** The group of a plan that a drive is in. */
const groupWith = (plan: Plan, drive: string | undefined): string | undefined =>
  plan.pools.flatMap((pool) => pool.groups).find((group) => drive !== undefined && group.drives.includes(drive))?.id;

/** What a command names first of a kind: a drive, a group or a step. */
function namedIn(command: Command): {
  drive?: string | undefined;
  group?: string | undefined;
  step?: string | undefined;
} {
  const groups = "groups" in command ? command.groups.flatMap((each) => ("drives" in each ? each.drives : each)) : [];
  const drives = "drives" in command && command.kind !== "add-drives" ? command.drives : groups;
  const drive = "drive" in command ? command.drive : drives[0];
  return {
    drive: typeof drive === "string" ? drive : undefined,
    group: "group" in command ? command.group : undefined,
    step: "step" in command ? command.step : undefined,
  };
}

/** The heading of what is looked at. */
const headingOf = (): HTMLElement | null =>
  first("#readout-heading") ?? first("main h1:not(.sr-only)") ?? first("main h2") ?? first("main");

/**
 * What a command has led to, on the page: the step that it made or changed, the group that it is about, the drive that
 * it moved; null where nothing of it is there.
 */
export function resultOf(command: Command | undefined, plan: Plan): HTMLElement | null {
  if (!command) return headingOf();
  const { drive, group, step } = namedIn(command);
  if (/step|sequence/.test(command.kind))
    return (
      marked("step", step) ??
      first('[data-step][aria-current="step"]') ??
      (plan.steps.length === 0 ? first("#steps-heading") : null)
    );
  if (/group|layout|lay-out|options|landing/.test(command.kind))
    return marked("group", group ?? groupWith(plan, drive)) ?? marked("drive", drive);
  return marked("drive", drive) ?? marked("group", group);
}
