import type { Bus, Contents, Medium, NewDrive, Sector } from "@/core/document/plan";
import { isSector } from "@/core/drives/sector";
import { INVENTORY_COMMAND } from "./command";
import { cleanText, flag, kernelName, wholeNumber, type BlockDevice } from "./blockDevice";
import validateLsblk from "./generated/validateLsblk.cjs";
import { graphOf, standingOn, type DeviceGraph } from "./deviceGraph";
import type { DeviceKind } from "./kindOfDevice";

/** A physical drive that the operating system knows. */
export interface FoundDrive {
  /** The kernel's name, for instance "sda". */
  name: string;
  /** World-wide name; empty where none is printed. */
  wwn: string;
  /** The drive as the plan would keep it, or why it cannot be taken. */
  drive: { ok: true; value: NewDrive } | { ok: false; reason: string };
  /** What had to be assumed because it was not printed. */
  assumed: string[];
}

export interface Inventory {
  found: FoundDrive[];
  /** What had to be assumed of all of them, since such lists do not print it. */
  assumedOfAll: string[];
  /** Whether the list tells anything of what is on drives. */
  knowsContents: boolean;
  /** How many other devices were left out, by kind. */
  leftOut: { kind: DeviceKind; count: number }[];
}

/**
 * Whether a found drive is one that somebody would put into a pool: what carries the system or data in use, or hangs on
 * USB, is not, unless its owner says so.
 *
 * @example inventory.found.filter(worthTaking).length // 4
 */
export function worthTaking({ drive }: FoundDrive): boolean {
  if (!drive.ok) return false;
  const { contents, bus } = drive.value;
  return contents?.kind !== "system" && contents?.kind !== "mounted" && bus !== "usb";
}

export type InventoryResult = { ok: true; inventory: Inventory } | { ok: false; message: string };

/** The largest inventory that is read, in characters: a box with 4,000 devices prints less. */
export const MOST_INVENTORY_CHARACTERS = 8 * 2 ** 20;

/** Mount points without which the system does not run. */
export const SYSTEM_MOUNTS = /^(\/|\/boot(\/.*)?|\/usr|\/var|\/etc|\/nix|\[SWAP\])$/;

/** Where a device is mounted, as it is printed. */
export const mountsOf = (device: BlockDevice) =>
  [device.mountpoint, ...(device.mountpoints ?? [])].map(cleanText).filter(Boolean);

/** Where file systems are mounted, by their uuid: one over several drives shows its mount point on one of them only. */
function mountsByUuid(devices: Iterable<BlockDevice>): (device: BlockDevice) => string[] {
  const known = new Map<string, Set<string>>();
  for (const device of devices) {
    const uuid = cleanText(device.uuid);
    if (!uuid || !device.fstype) continue;
    const mounts = known.get(uuid) ?? new Set();
    for (const mount of mountsOf(device)) mounts.add(mount);
    known.set(uuid, mounts);
  }
  return (device) => [...mountsOf(device), ...(device.fstype ? (known.get(cleanText(device.uuid)) ?? []) : [])];
}

/**
 * Whether nothing can be told about contents: without the system's device database (in containers, in some rescue
 * systems) the types of file systems and partitions and the serials are null on every device.
 */
const knowsNothing = (devices: Iterable<BlockDevice>): boolean =>
  [...devices].every(
    (device) => ![device.fstype, device.serial, device.parttype, device.pttype, device.uuid].some(cleanText),
  );

/** What a mark says of the drive that carries it, where it is no file system. */
const PART_OF: ReadonlyMap<string, string> = new Map([
  ["linux_raid_member", "part of a RAID array"],
  ["LVM2_member", "part of a set of logical volumes"],
  ["crypto_LUKS", "encrypted"],
]);

/** What is said of a drive of which the list tells nothing; it must not be taken for empty. */
const NOT_KNOWN: Contents = { kind: "data", detail: "not known what: the list does not tell" };

function contentsOf(layers: readonly BlockDevice[], mounted: (device: BlockDevice) => string[]): Contents | undefined {
  // From the root up, as people say it.
  const mounts = [...new Set(layers.flatMap(mounted))].sort();
  const system = mounts.filter((mount) => SYSTEM_MOUNTS.test(mount));
  const detail = (words: readonly string[]) => words.slice(0, 4).join(", ").slice(0, 120);
  if (system.length > 0) return { kind: "system", detail: `mounted at ${detail(system)}` };
  if (mounts.length > 0) return { kind: "mounted", detail: `mounted at ${detail(mounts)}` };
  const marks = layers.map((layer) => cleanText(layer.fstype)).filter(Boolean);
  const fileSystems = [...new Set(marks.map((mark) => PART_OF.get(mark) ?? mark))];
  if (fileSystems.length > 0) return { kind: "data", detail: detail(fileSystems) };
  return layers.length > 1
    ? { kind: "data", detail: layers.length === 2 ? "1 partition" : `${layers.length - 1} partitions` }
    : undefined;
}

function busOf(device: BlockDevice, assumed: string[]): Bus {
  const tran = cleanText(device.tran).toLowerCase();
  if (tran === "nvme" || kernelName(device).startsWith("nvme")) return "nvme";
  if (tran === "usb") return "usb";
  // A SATA drive behind a SAS controller shows the controller's transport, and "ATA" as its vendor.
  if (tran === "sas") return cleanText(device.vendor).toUpperCase() === "ATA" ? "sata" : "sas";
  if (tran !== "sata" && tran !== "ata")
    assumed.push(tran ? `interface “${tran}”, taken as SATA` : "interface not printed, taken as SATA");
  return "sata";
}

function mediumOf(device: BlockDevice, bus: Bus, assumed: string[]): Medium {
  if (bus === "nvme") return "ssd";
  const rotates = flag(device.rota);
  if (rotates === null) assumed.push("not printed whether it is a hard disk or flash, taken as a hard disk");
  return rotates === false ? "ssd" : "hdd";
}

function sectorOf(
  value: number | string | null | undefined,
  fallback: Sector,
  which: string,
  assumed: string[],
): Sector {
  const size = wholeNumber(value);
  if (isSector(size)) return size;
  assumed.push(`${which} sector size not printed, taken as ${fallback}`);
  return fallback;
}

/** The model with its maker, unless that is only the name of the bus or begins the model anyway. */
function modelOf(device: BlockDevice): string {
  const [vendor, model] = [cleanText(device.vendor), cleanText(device.model)];
  const namesMaker =
    vendor === "" || /^(ATA|0x[0-9a-f]+)$/i.test(vendor) || model.toLowerCase().startsWith(vendor.toLowerCase());
  return namesMaker ? model : cleanText(`${vendor} ${model}`);
}

/** What a list says of the contents of its drives. */
interface Told {
  mounted: (device: BlockDevice) => string[];
  nothing: boolean;
}

/** Why the size of a device is none that can be taken. */
function noSize(device: BlockDevice): string {
  const printed = cleanText(String(device.size ?? ""));
  if (printed === "") return "Its size is not printed. Run the command again with --output-all.";
  return printed.startsWith("-")
    ? `Its size is printed as ${printed}, below zero, which no drive has. Run the command again.`
    : `Its size is printed rounded, as ${printed}. Run the command again with --bytes.`;
}

function foundDrive(device: BlockDevice, layers: readonly BlockDevice[], told: Told): FoundDrive {
  const known = { name: kernelName(device), wwn: cleanText(device.wwn) };
  const bytes = wholeNumber(device.size);
  if (bytes === null) return { ...known, drive: { ok: false, reason: noSize(device) }, assumed: [] };
  if (bytes > 1e15)
    return { ...known, drive: { ok: false, reason: "Its size is larger than any drive." }, assumed: [] };
  const assumed: string[] = [];
  const bus = busOf(device, assumed);
  const medium = mediumOf(device, bus, assumed);
  const logicalSector = sectorOf(device["log-sec"], 512, "logical", assumed);
  const physicalSector = sectorOf(
    device["phy-sec"],
    medium === "hdd" && logicalSector < 4096 ? 4096 : logicalSector,
    "physical",
    assumed,
  );
  const serial = cleanText(device.serial);
  const model = modelOf(device);
  const contents = contentsOf(layers, told.mounted) ?? (told.nothing ? NOT_KNOWN : undefined);
  const table = ({ dos: "mbr", gpt: "gpt" } as const)[cleanText(device.pttype).toLowerCase() as "dos" | "gpt"];
  if (!serial) assumed.push("no serial number: check by hand which drive it is");
  return {
    ...known,
    drive: {
      ok: true,
      value: {
        label: "",
        ...(serial ? { serial } : {}),
        ...(model ? { model } : {}),
        bytes,
        medium,
        bus,
        logicalSector,
        physicalSector,
        health: { state: "good" },
        ...(contents ? { contents } : {}),
        ...(table ? { partitionTable: table } : {}),
        ...(/^host-/.test(cleanText(device.zoned)) ? { shingled: true } : {}),
      },
    },
    assumed,
  };
}

function parse(text: string): { ok: true; value: unknown } | { ok: false; message: string } {
  const body = text.replace(/^\uFEFF/, "").trim();
  if (body === "")
    return {
      ok: false,
      message: `There is nothing in it. Run ${INVENTORY_COMMAND} on the box and paste all that it prints.`,
    };
  if (/^NAME\s+/m.test(body) && !body.includes("{"))
    return {
      ok: false,
      message: `This is lsblk's table, which rounds the sizes. Run it as ${INVENTORY_COMMAND} and paste that.`,
    };
  if (!body.includes("{"))
    return {
      ok: false,
      message: `There is no list of devices in this. Run ${INVENTORY_COMMAND} on the box and paste all that it prints.`,
    };
  // A prompt and the command itself are often copied along.
  const start = body.indexOf("{");
  const end = body.lastIndexOf("}");
  try {
    return { ok: true, value: JSON.parse(start >= 0 && end > start ? body.slice(start, end + 1) : body) };
  } catch (error) {
    return {
      ok: false,
      message:
        "This is not the JSON that lsblk prints, or a part of it is missing: " +
        `${error instanceof Error ? error.message : String(error)}. Copy everything from the first { to the last ` +
        "}.",
    };
  }
}

function fitsSchema(value: unknown): boolean {
  try {
    return validateLsblk(value);
  } catch (error) {
    // Devices nested thousands deep overflow the stack; no system prints that.
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** What a list of devices is, or what is wrong with its text. */
export type DevicesResult = { ok: true; devices: BlockDevice[] } | { ok: false; message: string };

/**
 * Reads the list that `lsblk --json --bytes` prints, as it is.
 *
 * @param text at most `MOST_INVENTORY_CHARACTERS` long
 */
export function readDevices(text: string): DevicesResult {
  if (text.length > MOST_INVENTORY_CHARACTERS)
    return {
      ok: false,
      message: "This is more than 8 MB, far more than lsblk prints. Choose the file that holds its output.",
    };
  const parsed = parse(text);
  if (!parsed.ok) return parsed;
  if (fitsSchema(parsed.value))
    return { ok: true, devices: (parsed.value as { blockdevices: BlockDevice[] }).blockdevices };
  const [error] = validateLsblk.errors ?? [];
  const where = error?.instancePath ? ` at ${error.instancePath}` : "";
  return {
    ok: false,
    message:
      `This is JSON, but not what lsblk prints: it ${error?.message ?? "has another shape"}${where}. Run ` +
      `${INVENTORY_COMMAND} and paste all of it.`,
  };
}

/**
 * Reads what `lsblk --json --bytes` printed, with all columns or some of them, from new and old releases. Physical
 * disks become drives; everything else is left out and counted. A disk that carries the running system or mounted
 * data is marked so.
 *
 * @param text the command's output, at most `MOST_INVENTORY_CHARACTERS` long
 * @returns what was found, or a sentence that says what is wrong with the text and what to do; it never throws
 */
export function readLsblk(text: string): InventoryResult {
  const read = readDevices(text);
  return read.ok ? { ok: true, inventory: inventoryOf(graphOf(read.devices)) } : read;
}

/** Through a second cable or port the same drive shows twice: what tells that it is the same, or nothing. */
function identityOf(device: BlockDevice): string {
  const serial = cleanText(device.serial);
  return cleanText(device.wwn) || (serial && `${cleanText(device.model)} ${serial}`);
}

/** The physical disks among devices, and how much of what else was left out. */
export function inventoryOf(graph: DeviceGraph): Inventory {
  const all = [...graph.values()].map(({ device }) => device);
  const told: Told = { mounted: mountsByUuid(all), nothing: knowsNothing(all) };
  const left = new Map<DeviceKind, number>();
  const leave = (kind: DeviceKind) => left.set(kind, (left.get(kind) ?? 0) + 1);
  const known = new Set<string>();
  const found: FoundDrive[] = [];
  const { compare } = new Intl.Collator("en", { numeric: true });
  for (const node of [...graph.values()].sort((a, b) => compare(a.name, b.name))) {
    const { device, kind } = node;
    const identity = identityOf(device);
    if (kind !== "disk") leave(kind);
    else if (identity && known.has(identity)) leave("second path");
    else {
      if (identity) known.add(identity);
      found.push(
        foundDrive(
          device,
          standingOn(node).map((each) => each.device),
          told,
        ),
      );
    }
  }
  const assumedOfAll = [
    "their health is not printed and taken as good: read their SMART data to know it",
    ...(told.nothing
      ? [
          "this system prints no serials and no types of file systems or partitions, so nothing can be told " +
            "about their contents: take none of them for empty",
        ]
      : []),
  ];
  return {
    found,
    assumedOfAll,
    knowsContents: !told.nothing,
    leftOut: [...left].map(([kind, count]) => ({ kind, count })),
  };
}
