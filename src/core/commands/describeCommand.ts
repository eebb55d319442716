import type { Command } from "../document/command";
import type { Plan } from "../document/plan";
import { moduleOfCommand } from "./registry";

/**
 * A command in a few words of the past tense, for undo and redo and for notices.
 *
 * @param plan the plan before the command
 * @example describeCommand(plan, { kind: "move-drive", drive: "d5", to: { bay: 5 } })
 * // "moved the 3 TB drive to bay 5"
 */
export function describeCommand(plan: Plan, command: Command): string {
  return moduleOfCommand(command).describe(command, plan);
}
