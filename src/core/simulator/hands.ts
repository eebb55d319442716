import type { Drive } from "../document/plan";
import { freeBay } from "./doing";
import { befall } from "./mishaps";
import type { Practice } from "./practice";
import { bareDrive } from "./setUp";
import { groupWith, placeOf } from "./simulatedBox";

/**
 * The owner pulls a drive out of its bay: a group that has it goes on without it, as far as it can. One that is in no
 * group is just out.
 *
 * @example pull(practice, "d2"); practice.said.at(-1)?.what // "not-there"
 */
export function pull(practice: Practice, id: string): void {
  const { box } = practice;
  const drive = box.drives[placeOf(box, id)];
  if (!drive || drive.bay === null) return;
  if (drive.state === "works" && groupWith(box, placeOf(box, id)))
    return befall(practice, { kind: "goes-missing", drive: id });
  drive.bay = null;
  if (drive.state === "failed") practice.said.push({ hours: box.hours, what: "not-there", drive: id });
}

/**
 * The owner puts a drive into the lowest free bay: one that was pulled out of its group comes back to it.
 *
 * @returns whether there was a bay for it
 */
export function seat(practice: Practice, id: string): boolean {
  const { box } = practice;
  const drive = box.drives[placeOf(box, id)];
  if (!drive || drive.bay !== null || freeBay(box) === null) return false;
  if (drive.state === "missing") befall(practice, { kind: "comes-back", drive: id });
  else drive.bay = freeBay(box);
  return true;
}

/**
 * The owner brings another drive, empty: it lies on the shelf. One that is there already stays as it is.
 *
 * @example bring(practice, { ...drive, id: "new-1" }); practice.box.drives.at(-1)?.bay // null
 */
export function bring({ box }: Practice, drive: Drive): void {
  if (placeOf(box, drive.id) >= 0) return;
  box.drives.push({ ...bareDrive(drive, box.rules, box.block), bay: null });
}
