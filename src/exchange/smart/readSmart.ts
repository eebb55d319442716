import type { Bus, Health, Medium, NewDrive, Sector } from "@/core/document/plan";
import { isSector } from "@/core/drives/sector";
import validateSmartctl from "./generated/validateSmartctl.cjs";
import { ownValue } from "@/core/records/ownValue";

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
  ata_smart_data?: { self_test?: { polling_minutes?: { extended?: number } } };
}

const REALLOCATED = 5;
const PENDING = 197;

const count = (value: number | undefined) =>
  value !== undefined && Number.isSafeInteger(value) && value >= 0 ? value : undefined;

/** A thing without the fields that are not known. */
const known = <T extends object>(thing: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== undefined)) as never;

/** Degrees Celsius that a drive can have; others are a slip of its firmware. */
const isTemperature = (degrees: number | undefined) => degrees !== undefined && degrees >= -60 && degrees <= 200;

/** Whole minutes that a self-test can take; drives that do not know print 0. */
const isMinutes = (minutes: number | undefined) =>
  minutes !== undefined && Number.isInteger(minutes) && minutes >= 1 && minutes <= 100_000;

/** The counts that a drive prints of itself, whatever it calls them. */
function countsOf(printed: Printed) {
  const raw = (id: number) => count(printed.ata_smart_attributes?.table?.find((row) => row.id === id)?.raw?.value);
  const nvme = printed.nvme_smart_health_information_log;
  const extended = printed.ata_smart_data?.self_test?.polling_minutes?.extended;
  return {
    reallocatedSectors: raw(REALLOCATED) ?? count(printed.scsi_grown_defect_list) ?? count(nvme?.media_errors),
    pendingSectors: raw(PENDING),
    powerOnHours: count(printed.power_on_time?.hours ?? nvme?.power_on_hours),
    selfTestMinutes: isMinutes(extended) ? extended : undefined,
  };
}

const isWorn = ({ nvme_smart_health_information_log: nvme }: Printed) => (nvme?.percentage_used ?? 0) >= WORN;

const saysItFails = ({ smart_status: status, nvme_smart_health_information_log: nvme }: Printed) =>
  status?.passed === false || (nvme?.critical_warning ?? 0) !== 0;

function healthOf(printed: Printed): Health {
  const nvme = printed.nvme_smart_health_information_log;
  const counts = countsOf(printed);
  const { reallocatedSectors = 0, pendingSectors = 0 } = counts;
  const temperature = printed.temperature?.current ?? nvme?.temperature;
  const suspect = reallocatedSectors > 0 || pendingSectors > 0 || isWorn(printed);
  const failing = saysItFails(printed);
  return {
    state: failing ? "failing" : suspect ? "watch" : "good",
    ...known({ ...counts, temperature: isTemperature(temperature) ? temperature : undefined }),
  };
}

/** What flash prints for the turns of its disk. */
const FLASH: ReadonlySet<unknown> = new Set([0, "Solid State Device"]);

const BUSES: Record<string, Bus> = { NVME: "nvme", SCSI: "sas" };

/** A text as it is kept: without doubled spaces, and no longer than a plan takes. */
const short = (text: string | undefined) => (text ?? "").replace(/\s+/g, " ").trim().slice(0, 120);

function reportOf(printed: Printed): SmartReport {
  const bytes = Number(printed.user_capacity?.bytes ?? printed.nvme_total_capacity ?? NaN);
  const bus = ownValue(BUSES, printed.device?.protocol?.toUpperCase() ?? "") ?? "sata";
  const sector = (size: number | undefined) => (isSector(size) ? size : null);
  const logical = sector(printed.logical_block_size);
  return {
    serial: (printed.serial_number ?? "").trim().slice(0, 120),
    model: short(printed.model_name ?? printed.scsi_model_name),
    bytes: Number.isSafeInteger(bytes) && bytes > 0 ? bytes : null,
    bus,
    medium: bus === "nvme" || FLASH.has(printed.rotation_rate) ? "ssd" : "hdd",
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

/** Why a report cannot be one of smartctl's, or null. */
function shapeProblem(value: unknown, number: number): string | null {
  if (validateSmartctl(value)) return null;
  const [error] = validateSmartctl.errors ?? [];
  const where = error?.instancePath ? ` at ${error.instancePath}` : "";
  return `Report ${number} is JSON, but not what smartctl prints: it ${error?.message ?? "has another shape"}${where}.`;
}

/** The values that a text holds, or what is wrong with it. */
function valuesOf(text: string): unknown[] | string {
  if (text.length > MOST_SMART_CHARACTERS) return "This is more than 8 MB, far more than smartctl prints.";
  if (text.trim() === "")
    return `There is nothing in it. Run ${SMART_COMMAND} for each drive and paste all that it prints.`;
  try {
    const values = parseAll(text);
    return values.length > MOST_REPORTS
      ? `These are ${values.length} reports; at most ${MOST_REPORTS} are read at once.`
      : values;
  } catch (error) {
    return (
      "This is not the JSON that smartctl prints, or a part of it is missing: " +
      `${error instanceof Error ? error.message : String(error)}. Run it with --json.`
    );
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
  const values = valuesOf(text);
  if (typeof values === "string") return { ok: false, message: values };
  const reports: SmartReport[] = [];
  const skipped: string[] = [];
  for (const [i, value] of values.entries()) {
    const message = shapeProblem(value, i + 1);
    if (message !== null) return { ok: false, message };
    const report = reportOf(value as Printed);
    if (report.serial) reports.push(report);
    else skipped.push((value as Printed).device?.name ?? `report ${i + 1}`);
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
