import type { Bytes } from "../bytes/bytes";

export type Medium = "hdd" | "ssd";
export type Bus = "sata" | "sas" | "nvme" | "usb";
export type HealthState = "good" | "watch" | "failing";

/** What a drive reports of itself. Counts that were never read are left out. */
export interface Health {
  state: HealthState;
  reallocatedSectors?: number;
  pendingSectors?: number;
  powerOnHours?: number;
  /** In degrees Celsius. */
  temperature?: number;
}

/** What lies on a drive before Cortijo's plan: joining a group erases it. */
export interface Contents {
  /** `data`: partitions or a file system; `mounted`: in use; `system`: carries the running system. */
  kind: "data" | "mounted" | "system";
  /** Where it is mounted or what it is, in the system's own words, for instance "/srv/photos". */
  detail?: string;
}

export type Place = { bay: number } | { shelf: true };

/** One drive, as the plan document keeps it. */
export interface Drive {
  id: string;
  /** The owner's name for it, or its model. May be empty. */
  label: string;
  serial?: string;
  model?: string;
  /** The exact size in bytes. */
  bytes: Bytes;
  medium: Medium;
  bus: Bus;
  logicalSector: number;
  physicalSector: number;
  health: Health;
  contents?: Contents;
  /** Shingled recording, which writes in place very slowly. */
  shingled?: boolean;
  partitionTable?: "mbr" | "gpt" | "none";
  /** Year, month or day of purchase, as 2024, 2024-05 or 2024-05-17. */
  purchased?: string;
  /** In the owner's currency. */
  price?: number;
  /** Whether it is only thought of, and not owned yet. */
  toBuy?: boolean;
  place: Place;
}

/** The bay a drive is in, or null when it is on the shelf. */
export function bayOf(drive: Pick<Drive, "place">): number | null {
  return "bay" in drive.place ? drive.place.bay : null;
}
