import type { NewDrive } from "@/core/document/plan";
import { MOST_TYPED_DRIVES, newDrivesOf, typedDrives } from "@/core/drives/typedDrives";
import { counted } from "@/core/words/counted";
import { NOT_LOADED } from "../kit/notLoaded";

/** What was read of what somebody gave: drives, with a note on what had to be assumed; or what is wrong. */
export type GivenDrives = { ok: true; drives: NewDrive[]; note: string } | { ok: false; message: string };

const LOOKS_LIKE_INVENTORY = /^\s*[{[]/;
/** A first line that names columns, one of them the size. */
const LOOKS_LIKE_TABLE = /^\ufeff?[^\n]*\bsize\b[^\n]*\n/i;

/** Whether a text is output or a table, for which readers have to be loaded, and not drives as people type them. */
export const isPasted = (text: string): boolean => LOOKS_LIKE_INVENTORY.test(text) || LOOKS_LIKE_TABLE.test(text);

/** Drives as people type them. */
export function readTyped(text: string): GivenDrives {
  const result = typedDrives(text);
  return result.ok
    ? {
        ok: true,
        drives: result.drives.flatMap(newDrivesOf),
        note: result.assumed ? "taken as terabytes, since no unit was typed" : "",
      }
    : result;
}

/** What the box printed, or a table, by the readers that every import goes through. */
export async function readPasted(text: string): Promise<GivenDrives> {
  try {
    if (LOOKS_LIKE_INVENTORY.test(text)) {
      const { readLsblk, worthTaking } = await import("@/exchange/inventory/readLsblk");
      const result = readLsblk(text);
      if (!result.ok) return result;
      const { found } = result.inventory;
      const taken = found.filter(worthTaking).flatMap(({ drive }) => (drive.ok ? [drive.value] : []));
      const left = found.length - taken.length;
      return few(taken, left > 0 ? `${counted(left, "drive")} with a running system, in use or on USB left out` : "");
    }
    const { readDriveCsv } = await import("@/exchange/driveList/driveCsv");
    const result = readDriveCsv(text);
    return result.ok ? few(result.drives, "") : { ok: false, message: result.problems.slice(0, 3).join(" ") };
  } catch {
    return { ok: false, message: NOT_LOADED };
  }
}

const few = (drives: NewDrive[], note: string): GivenDrives =>
  drives.length === 0
    ? { ok: false, message: "No drive that a pool could be made of was found in it." }
    : drives.length > MOST_TYPED_DRIVES
      ? { ok: false, message: `It lists ${drives.length} drives. Begin with at most ${MOST_TYPED_DRIVES}.` }
      : { ok: true, drives, note };
