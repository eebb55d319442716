import type { UnitFamily } from "../bytes/formatBytes";
import type { Drive, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";

/** A drive that has to be the right one before a step is begun. */
export interface DriveCheck {
  drive: string;
  /** What becomes of it. */
  why: "erased" | "pulled" | "new";
  size: string;
  /** The bay in which it is, or into which it goes; null where it is in none. */
  bay: number | null;
  /** Whether it is in that bay already. */
  isThere: boolean;
  make: string;
  /** Its serial number; null where the plan does not know it, and it is read from the label. */
  serial: string | null;
  name: string;
}

/**
 * A drive to be checked in a few words: "4 TB, in bay 1", "12 TB, for bay 1".
 */
export const checkWords = ({ size, bay, isThere }: DriveCheck): string =>
  bay === null ? size : `${size}, ${isThere ? "in" : "for"} bay ${bay}`;

/** So many characters at the end of a serial number tell drives apart. */
const ENOUGH = 4;

const plain = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, "").toUpperCase();

/** A drive to be checked, as it stands before a step, with the bay in which it is then worked on. */
export function driveCheck(drive: Drive, bay: number | null, why: DriveCheck["why"], family: UnitFamily): DriveCheck {
  return {
    drive: drive.id,
    why,
    size: shortSize(drive, family),
    bay: bayOf(drive) ?? bay,
    isThere: bayOf(drive) !== null,
    make: drive.label,
    serial: drive.serial ?? null,
    name: nameOfDrive(drive, family),
  };
}

/** Whether what was typed says that it is the drive, and if not, why. */
export type Checked = { ok: true; serial?: string } | { ok: false; message: string };

/** What is longer was not typed, but printed by the box. */
const MOST_TYPED = 60;

/** Whether what the box has printed of a drive is of this one: of the plan's serial numbers it names just that. */
function checkPrinted({ drive, serial }: DriveCheck, printed: string, plan: Plan, family: UnitFamily): Checked {
  const text = plain(printed);
  if (serial === null)
    return { ok: false, message: "Type the serial number alone: the plan does not know this drive yet." };
  const named = plan.drives.filter((each) => each.serial && text.includes(plain(each.serial)));
  const [first] = named;
  if (!first)
    return { ok: false, message: `What the box prints here names no drive of the plan. It should be ${serial}.` };
  if (named.length > 1)
    return {
      ok: false,
      message: "What the box prints here names several drives. Bring only what it prints of this one.",
    };
  return first.id === drive
    ? { ok: true }
    : { ok: false, message: `Stop: that is ${nameOfDrive(first, family)}. It should be ${serial}.` };
}

/**
 * Whether what was read from the label of a drive is the serial number that the plan has for it: the last four
 * characters are enough, upper or lower case. Where the plan has none, the whole number is taken over. What the box
 * prints of the drive does as well.
 *
 * @param typed from the label, or from what the box lists
 * @example checkDrive({ serial: "ORL-4418", … }, "4418", plan, "TB") // { ok: true }
 */
export function checkDrive(check: DriveCheck, typed: string, plan: Plan, family: UnitFamily): Checked {
  if (typed.length > MOST_TYPED) return checkPrinted(check, typed, plan, family);
  const given = plain(typed);
  if (given.length < ENOUGH)
    return {
      ok: false,
      message: check.serial
        ? `Type at least the last ${ENOUGH} letters and digits of the serial number on its label.`
        : "Type the whole serial number from its label: the plan does not know it yet.",
    };
  const ends = (drive: Pick<Drive, "serial">) => drive.serial !== undefined && plain(drive.serial).endsWith(given);
  const other = plan.drives.find((drive) => drive.id !== check.drive && ends(drive));
  if (check.serial === null) {
    if (other) return { ok: false, message: `That is ${nameOfDrive(other, family)}, not a new drive. Look again.` };
    return { ok: true, serial: typed.trim().slice(0, 120) };
  }
  if (ends({ serial: check.serial })) return { ok: true };
  const should = `It should be ${check.serial}.`;
  return {
    ok: false,
    message: other
      ? `Stop: that is ${nameOfDrive(other, family)}. ${should}`
      : `Stop: this is not the drive. ${should} No drive of the plan has a serial number that ends in ` +
        `${typed.trim().slice(0, 40)}.`,
  };
}
