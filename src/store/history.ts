import { applyPatches, type Patch } from "immer";
import { applyCommand } from "@/core/commands/applyCommand";
import type { Command } from "@/core/document/command";
import { describeCommand } from "@/core/commands/describeCommand";
import type { Plan } from "@/core/document/plan";
import { checksNow } from "./checking";

/** A command that was done, with the patches there and back. */
export interface HistoryEntry {
  command: Command;
  /** In a few words of the past tense. */
  description: string;
  patches: Patch[];
  inverse: Patch[];
  /** When, in milliseconds since 1970. */
  at: number;
}

/** A plan with what led to it: the entries before `position` are done, those from there on undone. */
export interface History {
  plan: Plan;
  entries: HistoryEntry[];
  position: number;
}

export type HistoryResult = { ok: true; history: History; entry: HistoryEntry } | { ok: false; reason: string };

/** At least this many commands are kept for undoing; the oldest are forgotten first, some at a time. */
export const KEPT_ENTRIES = 500;
const FORGOTTEN_AT_ONCE = 100;

export const startHistory = (plan: Plan): History => ({ plan, entries: [], position: 0 });

/** Does a command: what was undone can then no longer be redone. */
export function perform(history: History, command: Command, at: number): HistoryResult {
  const result = applyCommand(history.plan, command);
  if (!result.ok) return result;
  const problem = checksNow()?.problemOf(result.plan);
  if (problem) return { ok: false, reason: problem };
  const entry: HistoryEntry = {
    command,
    description: describeCommand(history.plan, command),
    patches: result.patches,
    inverse: result.inverse,
    at,
  };
  const all = [...history.entries.slice(0, history.position), entry];
  const entries = all.length > KEPT_ENTRIES + FORGOTTEN_AT_ONCE ? all.slice(-KEPT_ENTRIES) : all;
  return { ok: true, entry, history: { plan: result.plan, entries, position: entries.length } };
}

/** The plan after patches that were kept; null where they are damaged, or lead to what is no plan. */
function patched(plan: Plan, patches: Patch[]): Plan | null {
  try {
    const checks = checksNow();
    // Patches that were kept before a layout, a step or a rule got its name bring the former one back.
    const next = applyPatches(plan, patches);
    const named = checks ? (checks.withPresentNames(next) as Plan) : next;
    return checks?.problemOf(named) ? null : named;
  } catch {
    return null;
  }
}

const damaged = (what: string): HistoryResult => ({
  ok: false,
  reason: `What was kept of this change is damaged, so that it cannot be ${what}. The plan is as it was.`,
});

/** Undoes the last command that is done. */
export function undo(history: History): HistoryResult {
  const entry = history.entries[history.position - 1];
  if (!entry) return { ok: false, reason: "There is nothing to undo." };
  const plan = patched(history.plan, entry.inverse);
  if (!plan) return damaged("undone");
  return { ok: true, entry, history: { ...history, plan, position: history.position - 1 } };
}

/** Does the last undone command again. */
export function redo(history: History): HistoryResult {
  const entry = history.entries[history.position];
  if (!entry) return { ok: false, reason: "There is nothing to redo." };
  const plan = patched(history.plan, entry.patches);
  if (!plan) return damaged("done again");
  return { ok: true, entry, history: { ...history, plan, position: history.position + 1 } };
}

/** The plan before the last command that is done, or null when nothing was done. */
export function planBefore(history: History): Plan | null {
  const entry = history.entries[history.position - 1];
  return entry ? patched(history.plan, entry.inverse) : null;
}
