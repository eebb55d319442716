import { Dexie, type EntityTable, type Table } from "dexie";
import type { Patch } from "immer";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import type { PracticeLog } from "@/core/simulator/practiceLog";

/** A plan as the browser keeps it. */
export interface KeptPlan {
  id: string;
  /** The document's name, for lists. */
  name: string;
  document: Plan;
  /** Rises with every command, undo and redo; tells tabs that the plan has changed. */
  revision: number;
  /** How many of the kept entries are done; those from here on can be redone. */
  position: number;
  createdAt: number;
  changedAt: number;
  /** When it was deleted; it can be brought back for 30 days. 0 for a plan that is there. */
  deletedAt: number;
  /** That it is a copy of one of the samples, to look at and to try things on. */
  example?: true;
}

/** One command of a plan's history, with the patches there and back. */
export interface KeptEntry {
  plan: string;
  /** Its place in the history, from 0. */
  place: number;
  command: Command;
  description: string;
  patches: Patch[];
  inverse: Patch[];
  at: number;
}

export interface Setting {
  name: string;
  value: unknown;
}

/** A practice box as the browser keeps it: beside a plan, and no part of it, as a real box is not. */
export interface KeptPractice extends PracticeLog {
  /** The id of the plan that it is for. */
  id: string;
  /** When it was set up, in milliseconds since 1970. */
  since: number;
  /** How far its clock has been put ahead of this device's, in milliseconds. */
  ahead: number;
}

/** The database in the browser. Nothing of it leaves the machine. */
export type CortijoDatabase = Dexie & {
  plans: EntityTable<KeptPlan, "id">;
  entries: Table<KeptEntry, [string, number]>;
  settings: EntityTable<Setting, "name">;
  practices: EntityTable<KeptPractice, "id">;
};

/** Opens nothing yet: Dexie connects on first use. */
export function createDatabase(name = "cortijo"): CortijoDatabase {
  const database = new Dexie(name) as CortijoDatabase;
  database.version(1).stores({ plans: "id, changedAt, deletedAt", entries: "[plan+place], plan", settings: "name" });
  database.version(2).stores({ practices: "id" });
  return database;
}
