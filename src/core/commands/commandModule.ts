import type { Command } from "../document/command";
import type { Plan } from "../document/plan";

export type CommandKind = Command["kind"];

/** The command of one kind. */
export type CommandOf<K extends CommandKind> = Extract<Command, { kind: K }>;

/** One kind of command: what it does to a plan, and how it is told. */
export interface CommandModule<K extends CommandKind> {
  /**
   * Changes a draft of the plan.
   *
   * @throws Refusal where the command no longer fits the plan
   */
  apply: (plan: Plan, command: CommandOf<K>) => void;
  /** It in a few words of the past tense, for undo and redo and for notices; `plan` is the one before it. */
  describe: (command: CommandOf<K>, plan: Plan) => string;
}
