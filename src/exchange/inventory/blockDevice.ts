/** One entry of lsblk's list, with the values as they are printed. Columns that were not asked for are missing. */
export interface BlockDevice {
  name: string;
  kname?: string | null;
  pkname?: string | null;
  label?: string | null;
  fssize?: number | string | null;
  fsused?: number | string | null;
  /** Where a partition begins, in sectors of 512 bytes. */
  start?: number | string | null;
  type?: string | null;
  size?: number | string | null;
  model?: string | null;
  vendor?: string | null;
  serial?: string | null;
  wwn?: string | null;
  tran?: string | null;
  fstype?: string | null;
  /** Of the file system, or of what it is a member of. */
  uuid?: string | null;
  parttype?: string | null;
  pttype?: string | null;
  mountpoint?: string | null;
  mountpoints?: (string | null)[] | null;
  zoned?: string | null;
  rota?: boolean | number | string | null;
  "log-sec"?: number | string | null;
  "phy-sec"?: number | string | null;
  children?: BlockDevice[];
}

/** The kernel's name without a path: "/dev/sda" is "sda". */
export function kernelName(device: Pick<BlockDevice, "name">): string {
  const name = device.name.trim();
  return name.slice(name.lastIndexOf("/") + 1);
}

/** What was printed as true, 1, "1" or "true". Null when nothing was printed. */
export function flag(value: BlockDevice["rota"]): boolean | null {
  if (value === null || value === undefined || value === "") return null;
  return value === true || value === 1 || value === "1" || value === "true";
}

/** What was printed as 512 or "512". Null for anything else, also for a rounded figure like "3.6T". */
export function wholeNumber(value: number | string | null | undefined): number | null {
  if (typeof value === "number") return Number.isSafeInteger(value) && value >= 0 ? value : null;
  return typeof value === "string" && /^\s*\d{1,16}\s*$/.test(value) ? Number(value) : null;
}

const UNCLEAN = /[\\\u0000-\u001f\u007f]|\s\s|^\s|\s$/;

/** A printed text without padding, escapes (\x20) and control characters, cut at 120 characters; empty for null. */
export function cleanText(value: string | null | undefined): string {
  // Most texts are clean, and there are very many.
  if (!value || !UNCLEAN.test(value)) return value ? value.slice(0, 120) : "";
  return value
    .replace(/\\x([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
    .replace(/[\u0000-\u001f\u007f]/g, " ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 120);
}
