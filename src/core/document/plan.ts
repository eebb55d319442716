import type { Bytes } from "../bytes/bytes";
import type { PlanCalendar } from "../calendar/planCalendar";
import type { Backup } from "../data/backup";
import type { DataSet } from "../data/dataSet";
import type { Drive } from "../drives/drive";
import type { GroupOptions, LayoutId } from "../layouts/layout";
import type { Step } from "../steps/step";
import type { PricedDrive } from "../nextDrive/priceList";
import type { RulesChoice } from "../rules/boxRules";

export type FileSystem = "ext4" | "xfs" | "btrfs" | "none";

/** What the owner has said in writing to let a step go on although precious data has no current backup. */
export interface Lift {
  /** The day, as YYYY-MM-DD. */
  on: string;
  words: string;
}

/** Drives under one layout. */
export interface Group {
  id: string;
  layout: LayoutId;
  /** Ids of its drives, in the order in which the group names them. */
  drives: string[];
  options?: GroupOptions;
  /** Ids of drives that stand by for this group only. */
  spares?: string[];
  /**
   * How far up a drive is taken into the group, in bytes of what lies between reserve and margin, where that is less
   * than all of it: a larger replacement whose space has not been claimed yet.
   */
  reach?: Record<string, Bytes>;
  /** Chunk layouts: what of each drive holds chunks, in bytes, where new room has not been balanced out yet. */
  filled?: Record<string, Bytes>;
}

/** What is carved from a pool. */
export interface Volume {
  id: string;
  name: string;
  bytes: Bytes;
  fileSystem: FileSystem;
  /** How far its file system reaches, where it has not been grown to the whole volume yet. */
  fileSystemBytes?: Bytes;
  /** What is stored on it today. */
  usedBytes?: Bytes;
  /** The share of the file system that the owner wants to keep free; 0.2 where nothing is said. */
  headroomShare?: number;
}

/** A drive that serves a pool without adding capacity: it speeds up reading, or takes writes first. */
export interface Helper {
  drive: string;
  role: "read-cache" | "write-log";
}

/** One or more groups whose space is used as one. */
export interface Pool {
  id: string;
  name: string;
  groups: Group[];
  /** Ids of drives that stand by for all its groups. */
  spares: string[];
  volumes: Volume[];
  /** Flash drives beside the pool, which add no capacity to it. */
  helpers?: Helper[];
  /** The pool that new data lands for: it is moved there by schedule. */
  landsFor?: string;
}

export interface Box {
  name: string;
  bays: number;
  rules: RulesChoice;
}

/**
 * The plan document: the only state that is kept. It is never changed in place; a command makes the next one.
 * Its shape on the outside is `schema/plan-1.json`.
 */
export interface Plan {
  format: "cortijo-plan";
  version: 1;
  name: string;
  box: Box;
  drives: Drive[];
  pools: Pool[];
  /** What drives cost, where the owner has said so. */
  prices?: PricedDrive[];
  /** When it is carried out, where the owner has said so. */
  calendar?: PlanCalendar;
  /** What is stored on the volumes, how it grows, and how precious it is. */
  dataSets?: DataSet[];
  /** Where else the data is kept. */
  backups?: Backup[];
  /** What is to be changed about the box, in order. */
  steps: Step[];
}

/** The group that a drive belongs to, with its pool, or null. */
export function groupOfDrive(plan: Plan, drive: string): { pool: Pool; group: Group } | null {
  for (const pool of plan.pools) {
    const group = pool.groups.find((each) => each.drives.includes(drive));
    if (group) return { pool, group };
  }
  return null;
}

/** The drive in a bay, or null when the bay is free. */
export function driveInBay(plan: Plan, bay: number): Drive | null {
  return plan.drives.find((drive) => "bay" in drive.place && drive.place.bay === bay) ?? null;
}

/** The drives on the shelf, in the order of the plan. */
export function drivesOnShelf(plan: Plan): Drive[] {
  return plan.drives.filter((drive) => "shelf" in drive.place);
}

/** What a drive does beside a pool, or null when it is a member or belongs to none. */
export function roleOfDrive(
  plan: Plan,
  drive: string,
): { pool: Pool; role: "hot spare" | "read cache" | "write log" } | null {
  for (const pool of plan.pools) {
    if (pool.spares.includes(drive) || pool.groups.some((group) => group.spares?.includes(drive)))
      return { pool, role: "hot spare" };
    const helper = pool.helpers?.find((each) => each.drive === drive);
    if (helper) return { pool, role: helper.role === "read-cache" ? "read cache" : "write log" };
  }
  return null;
}
