import type { CommandKind, CommandModule } from "./commandModule";

/** The kinds of which the first page does none: they record work at the box, or are about data, backups
 * and rehearsals. */
export type AddedKind =
  | "start-step"
  | "take-progress"
  | "end-step"
  | "stop-step"
  | "record-steps"
  | "take-reading"
  | "correct-record"
  | "add-log-entries"
  | "remove-records"
  | "set-rates-only"
  | "put-data-set"
  | "remove-data-set"
  | "put-backup"
  | "remove-backup"
  | "keep-rehearsal"
  | "remove-rehearsal"
  | "take-way-out"
  | "set-chance"
  | "plan-instead"
  | "set-prices"
  | "set-currency";

export type Modules<K extends CommandKind> = { readonly [Kind in K]: CommandModule<Kind> };

let added: Partial<Modules<AddedKind>> = {};

/** Adds kinds with the place that does them, so that other pages need not load them. */
export function addCommands(modules: Partial<Modules<AddedKind>>): void {
  added = { ...added, ...modules };
}

/** The kinds that have been added. */
export const addedCommands = (): Partial<Modules<AddedKind>> => added;
