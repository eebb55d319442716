import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { Mishap } from "@/core/simulator/mishaps";

/** Each kind of mishap in a few words: for the heads of tables and for buttons. */
const NAMES: Readonly<Record<Mishap["kind"], string>> = {
  "drive-dies": "A drive dies",
  unreadable: "Sectors cannot be read",
  "goes-missing": "A cable comes loose",
  "comes-back": "A drive is put back",
  "power-cut": "The power is cut",
  "wrong-drive-pulled": "The wrong drive is pulled",
  short: "The new drive is 1 % smaller",
  "dies-young": "The new drive dies",
  slow: "A drive is four times slower",
  "parity-updated": "The parity is updated after a loss",
  "grow-forgotten": "The step is forgotten",
  fire: "Fire or theft",
  deletion: "Deleted by mistake",
};

const isKind = (kind: string): kind is Mishap["kind"] => Object.hasOwn(NAMES, kind);

/**
 * The mishaps of a column of the table in words.
 *
 * @example columnWords("drive-dies+goes-missing") // "A drive dies, then a cable comes loose"
 */
export function columnWords(column: string): string {
  const [first = "", second] = column.split("+");
  const name = (kind: string) => (isKind(kind) ? NAMES[kind] : kind);
  return second === undefined ? name(first) : `${name(first)}, then ${lowerFirst(name(second))}`;
}

/** Words that begin a sentence, in the middle of one. */
export const lowerFirst = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

/** A drive by its size and bay, shortly. */
export function driveWords(plan: Plan, id: string, unit: UnitFamily): string {
  const drive = plan.drives.find((each) => each.id === id);
  if (!drive) return "a drive";
  const where = "bay" in drive.place ? `, bay ${drive.place.bay}` : drive.lastBay ? `, from bay ${drive.lastBay}` : "";
  return `${shortSize(drive, unit)}${where}${drive.serial ? ` (${drive.serial})` : ""}`;
}

/**
 * A mishap and what it befalls, in words.
 *
 * @example mishapWords({ kind: "drive-dies", drive: "d2" }, plan, "TB") // "A drive dies: 4 TB, bay 2 (TJ4-0422)"
 */
export function mishapWords(mishap: Mishap, plan: Plan, unit: UnitFamily): string {
  const name = NAMES[mishap.kind];
  if ("drive" in mishap) return `${name}: ${driveWords(plan, mishap.drive, unit)}`;
  if ("volume" in mishap)
    return `${name}: ${plan.pools.flatMap(({ volumes }) => volumes).find(({ id }) => id === mishap.volume)?.name ?? "a volume"}`;
  return name;
}
