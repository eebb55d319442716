import { isSector } from "@/core/drives/sector";
import type { Sector } from "@/core/document/plan";
import validateSmartctl from "./generated/validateSmartctl.cjs";
import type { Bus, Health, Medium, NewDrive } from "@/core/document/plan";

/** What smartctl said of one drive. */
export interface SmartReport {
  serial: string;
  model: string;
  bytes: number | null;
  bus: Bus;
  medium: Medium;
  health: Health;
  logicalSector: Sector | null;
  physicalSector: Sector | null;
}

export type SmartResult = { ok: true; reports: SmartReport[]; skipped: string[] } | { ok: false; message: string };

/** The command whose output is asked for. */
export const SMART_COMMAND = "smartctl --json --all /dev/sdX";

export const MOST_SMART_CHARACTERS = 8 * 2 ** 20;
const MOST_REPORTS = 500;

/** A flash drive that has used this share of its life, in per cent, is one to watch. */
const WORN = 90;

/** What smartctl prints, as far as it is read; the schema has checked it. */
interface Printed {
  device?: { name?: string; protocol?: string };
  model_name?: string;
  scsi_model_name?: string;
  serial_number?: string;
  user_capacity?: { bytes?: number | string };
  nvme_total_capacity?: number | string;
  logical_block_size?: number;
  physical_block_size?: number;
  rotation_rate?: number | string;
  smart_status?: { passed?: boolean };
  power_on_time?: { hours?: number };
  temperature?: { current?: number };
  ata_smart_attributes?: { table?: { id: number; raw?: { value?: number } }[] };
  nvme_smart_health_information_log?: {
    critical_warning?: number;
    media_errors?: number;
    percentage_used?: number;
    power_on_hours?: number;
    temperature?: number;
  };
  scsi_grown_defect_list?: number;
}

const REALLOCATED = 5;
const PENDING = 197;

const count = (value: number | undefined) =>
  value !== undefined && Number.isSafeInteger(value) && value >= 0 ? value : undefined;

function healthOf(printed: Printed): Health {
  const raw = (id: number) => count(printed.ata_smart_attributes?.table?.find((row) => row.id === id)?.raw?.value);
  const nvme = printed.nvme_smart_health_information_log;
  const reallocated = raw(REALLOCATED) ?? count(printed.scsi_grown_defect_list) ?? count(nvme?.media_errors);
  const pending = raw(PENDING);
  const hours = count(printed.power_on_time?.hours ?? nvme?.power_on_hours);
  const temperature = printed.temperature?.current ?? nvme?.temperature;
  const suspect = (reallocated ?? 0) > 0 || (pending ?? 0) > 0 || (nvme?.percentage_used ?? 0) >= WORN;
  const failing = printed.smart_status?.passed === false || (nvme?.critical_warning ?? 0) !== 0;
  return {
    state: failing ? "failing" : suspect ? "watch" : "good",
    ...(reallocated !== undefined ? { reallocatedSectors: reallocated } : {}),
    ...(pending !== undefined ? { pendingSectors: pending } : {}),
    ...(hours !== undefined ? { powerOnHours: hours } : {}),
    ...(temperature !== undefined && temperature >= -60 && temperature <= 200 ? { temperature } : {}),
  };
}

function reportOf(printed: Printed): SmartReport {
  const protocol = printed.device?.protocol?.toUpperCase() ?? "";
  const bytes = Number(printed.user_capacity?.bytes ?? printed.nvme_total_capacity ?? NaN);
  const bus: Bus = protocol === "NVME" ? "nvme" : protocol === "SCSI" ? "sas" : "sata";
  const sector = (size: number | undefined) => (isSector(size) ? size : null);
  const logical = sector(printed.logical_block_size);
  return {
    serial: (printed.serial_number ?? "").trim().slice(0, 120),
    model: (printed.model_name ?? printed.scsi_model_name ?? "").replace(/\s+/g, " ").trim().slice(0, 120),
    bytes: Number.isSafeInteger(bytes) && bytes > 0 ? bytes : null,
    bus,
    medium:
      bus === "nvme" || printed.rotation_rate === 0 || printed.rotation_rate === "Solid State Device" ? "ssd" : "hdd",
    health: healthOf(printed),
    logicalSector: logical,
    physicalSector: sector(printed.physical_block_size) ?? logical,
  };
}

/** One object, an array, or several printed one after the other. */
function parseAll(text: string): unknown[] {
  const body = text.replace(/^\uFEFF/, "").trim();
  const one = (source: string): unknown[] => {
    const value: unknown = JSON.parse(source);
    return Array.isArray(value) ? value : [value];
  };
  try {
    return one(body);
  } catch (error) {
    if (!/^\}\s*^\{/m.test(body)) throw error;
    return one(`[${body.replace(/^\}\s*^\{/gm, "},{")}]`);
  }
}

/**
 * Reads what `smartctl --json` printed: of ATA, NVMe or SAS drives, one object, an array, or several one after the
 * other.
 *
 * @param text at most `MOST_SMART_CHARACTERS` long
 * @returns the reports, and what was passed over since it names no drive; or what is wrong with the text. Never throws
 */
export function readSmart(text: string): SmartResult {
  if (text.length > MOST_SMART_CHARACTERS)
    return { ok: false, message: "This is more than 8 MB, far more than smartctl prints." };
  if (text.trim() === "")
    return {
      ok: false,
      message: `There is nothing in it. Run ${SMART_COMMAND} for each drive and paste all that it prints.`,
    };
  let values: unknown[];
  try {
    values = parseAll(text);
  } catch (error) {
    return {
      ok: false,
      message: `This is not the JSON that smartctl prints, or a part of it is missing: ${error instanceof Error ? error.message : String(error)}. Run it with --json.`,
    };
  }
  if (values.length > MOST_REPORTS)
    return { ok: false, message: `These are ${values.length} reports; at most ${MOST_REPORTS} are read at once.` };
  const reports: SmartReport[] = [];
  const skipped: string[] = [];
  for (const [i, value] of values.entries()) {
    if (!validateSmartctl(value)) {
      const [error] = validateSmartctl.errors ?? [];
      return {
        ok: false,
        message: `Report ${i + 1} is JSON, but not what smartctl prints: it ${error?.message ?? "has another shape"}${error?.instancePath ? ` at ${error.instancePath}` : ""}.`,
      };
    }
    const printed = value as Printed;
    const report = reportOf(printed);
    if (report.serial) reports.push(report);
    else skipped.push(printed.device?.name ?? `report ${i + 1}`);
  }
  return { ok: true, reports, skipped };
}

/** A report of a drive that the plan does not know yet, as a new drive; null when its size was not printed. */
export function driveOfReport(report: SmartReport): NewDrive | null {
  if (report.bytes === null || report.bytes > 1e15) return null;
  return {
    label: "",
    serial: report.serial,
    ...(report.model ? { model: report.model } : {}),
    bytes: report.bytes,
    medium: report.medium,
    bus: report.bus,
    logicalSector: report.logicalSector ?? 512,
    physicalSector: report.physicalSector ?? 4096,
    health: report.health,
  };
}
