import type { Bytes } from "../bytes/bytes";
import { nominalBytes, SOLD_GIGABYTES } from "../bytes/nominalBytes";
import { parseSize, type ParsedSize } from "../bytes/parseSize";
import type { Bus, Medium } from "../document/plan";
import { ownValue } from "../records/ownValue";

/**
 * The bytes of a drive whose size was typed. A hard disk's label ("4 TB") stands for an exact number of sectors,
 * and so does the binary figure that a box shows for it ("3.64 TiB"), where just one sold size rounds to it.
 * A flash drive and a bare count of bytes are taken as typed.
 *
 * @returns bytes
 * @example driveBytes({ kind: "binary", bytes: 1_000_201_841_869, unit: "GiB", decimals: 2 }, "hdd") // 1 000 204 886 016
 */
export function driveBytes(size: ParsedSize, medium: Medium): Bytes {
  if (size.kind === "bytes" || medium === "ssd") return size.bytes;
  if (size.kind === "decimal") {
    const gigabytes = size.bytes / 1e9;
    return Number.isInteger(gigabytes) && gigabytes >= 50 && gigabytes <= 100_000
      ? nominalBytes(gigabytes)
      : size.bytes;
  }
  const unit = size.unit === "TiB" ? 2 ** 40 : size.unit === "GiB" ? 2 ** 30 : 0;
  if (unit === 0 || size.decimals === 0) return size.bytes;
  const typed = (size.bytes / unit).toFixed(size.decimals);
  const fits = SOLD_GIGABYTES.map(nominalBytes).filter((bytes) => (bytes / unit).toFixed(size.decimals) === typed);
  return fits.length === 1 && fits[0] !== undefined ? fits[0] : size.bytes;
}

/** Some equal drives that were typed in one go. */
export interface TypedDrives {
  count: number;
  bytes: Bytes;
  medium: Medium;
  bus: Bus;
}

export type TypedDrivesResult = { ok: true; drives: TypedDrives[] } | { ok: false; message: string };

const KINDS: Record<string, { medium: Medium; bus: Bus }> = {
  hdd: { medium: "hdd", bus: "sata" },
  sata: { medium: "hdd", bus: "sata" },
  sas: { medium: "hdd", bus: "sas" },
  usb: { medium: "hdd", bus: "usb" },
  ssd: { medium: "ssd", bus: "sata" },
  flash: { medium: "ssd", bus: "sata" },
  nvme: { medium: "ssd", bus: "nvme" },
};

/** The most drives that one line may add: more is a slip of the finger. */
export const MOST_TYPED_DRIVES = 48;

/** A drive below this is a memory stick or a slip in the unit. */
const SMALLEST_DRIVE = 1e9;

function readPart(part: string): TypedDrives | string {
  const match = /^(?:(\d{1,4})\s*[×x*]\s*)?(.*?)\s*((?:\s(?:hdd|sata|sas|usb|ssd|flash|nvme))*)$/i.exec(
    ` ${part}`.trim(),
  );
  if (!match) return `"${part}" is not a drive. Write it like 4 TB or 6 × 4 TB.`;
  const count = match[1] === undefined ? 1 : Number(match[1]);
  if (count < 1) return `"${part}" adds no drive.`;
  const words = (match[3] ?? "").trim().toLowerCase().split(/\s+/).filter(Boolean);
  const kind = words.reduce<{ medium: Medium; bus: Bus }>(
    (soFar, word) => {
      const next = ownValue(KINDS, word);
      if (!next) return soFar;
      return word === "sas" || word === "usb" || word === "sata" ? { ...soFar, bus: next.bus } : next;
    },
    { medium: "hdd", bus: "sata" },
  );
  const parsed = parseSize(match[2] ?? "");
  if (!parsed.ok) return parsed.message;
  const bytes = driveBytes(parsed.size, kind.medium);
  if (bytes < SMALLEST_DRIVE) return `"${part}" is less than 1 GB. Did you leave out the unit? Write it like 4 TB.`;
  return { count, bytes, ...kind };
}

/**
 * Reads drives typed in one line: "6 × 4 TB", "2x8TB + 12 TB", "4 TB; 960 GB ssd". The kind of a drive may follow
 * its size: hdd (if nothing is said), ssd, nvme, sas, usb. Parts are parted by "+", ";", "and" or a new line.
 *
 * @returns the drives, or a sentence that says what is wrong; it never throws
 * @example typedDrives("6 × 4 TB") // { ok: true, drives: [{ count: 6, bytes: 4 000 787 030 016, medium: "hdd", bus: "sata" }] }
 */
export function typedDrives(text: string): TypedDrivesResult {
  const parts = text
    .split(/[;+\n]|\sand\s/i)
    .map((part) => part.trim())
    .filter(Boolean);
  if (parts.length === 0) return { ok: false, message: "Type the drives you have, like 6 × 4 TB." };
  const drives: TypedDrives[] = [];
  for (const part of parts) {
    const read = readPart(part);
    if (typeof read === "string") return { ok: false, message: read };
    drives.push(read);
  }
  const total = drives.reduce((sum, each) => sum + each.count, 0);
  if (total > MOST_TYPED_DRIVES)
    return { ok: false, message: `That would add ${total} drives. Add at most ${MOST_TYPED_DRIVES} at once.` };
  return { ok: true, drives };
}
