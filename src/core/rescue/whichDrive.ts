import { drivesOf } from "../box/find";
import type { Drive, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";

/** What an owner can see of a drive that is in trouble. */
export interface Clue {
  /** What the box prints or lists: any text in which serials of the drives that answer stand. */
  printed?: string;
  /** The end of the serial that the box names as failed. */
  serial?: string;
  /** The bay whose light is out or red, or that the box names. */
  bay?: number;
}

/** What a clue comes to: drives that it can be about, and what it says in a sentence. */
export interface Found {
  drives: Drive[];
  says: string;
}

const plain = (text: string): string => text.toLowerCase().replace(/[\s-]+/g, "");

/** The drives of a plan's pools that are not in what the box prints. */
function notPrinted(members: readonly Drive[], printed: string): Found {
  const text = plain(printed);
  const known = members.filter((drive) => drive.serial);
  const seen = known.filter((drive) => text.includes(plain(drive.serial ?? "")));
  if (known.length === 0)
    return {
      drives: [],
      says: "The plan knows no serial of your drives, so a list of them tells nothing. Use the bay or the light.",
    };
  if (seen.length === 0)
    return {
      drives: [],
      says: "None of your drives' serials stands in this. Is it the list of this box, with serials in it?",
    };
  const missing = known.filter((drive) => !seen.includes(drive));
  return {
    drives: missing,
    says: byCount(missing, [
      "All your drives are in this list: they answer. Perhaps one was thrown out for errors: look which one " +
        "the box names.",
      "One of your drives is not in this list: it does not answer.",
      `${missing.length} of your drives are not in this list.`,
    ]),
  };
}

/** What is said of no drive, of one, and of several. */
const byCount = (drives: readonly Drive[], [none, one, several]: [string, string, string]): string =>
  drives.length === 0 ? none : drives.length === 1 ? one : several;

/**
 * Which drive is in trouble, by what its owner can see: what is missing from a printed list, the serial that the box
 * names, or the bay with the light.
 *
 * @param pool the pool that the box says is degraded
 * @example whichDrive(plan, "p1", { serial: "4418" }).drives.map(({ id }) => id) // ["d2"]
 */
export function whichDrive(plan: Plan, pool: string, { printed, serial, bay }: Clue): Found {
  const groups = plan.pools.find(({ id }) => id === pool)?.groups ?? [];
  const members = drivesOf(
    plan,
    groups.flatMap((group) => group.drives),
  );
  if (bay !== undefined) {
    const inBay = members.filter((drive) => bayOf(drive) === bay);
    return {
      drives: inBay,
      says:
        inBay.length > 0
          ? "It is this one, if the bays of the plan are right."
          : `No drive of this pool is in bay ${bay}.`,
    };
  }
  if (serial !== undefined && plain(serial) !== "") {
    const named = members.filter((drive) => drive.serial && plain(drive.serial).includes(plain(serial)));
    return {
      drives: named,
      says: byCount(named, [
        "No drive of this pool has that in its serial. Look for letters and digits that are easily mistaken.",
        "It is this one.",
        "More than one has that in its serial: type more of it.",
      ]),
    };
  }
  return notPrinted(members, printed ?? "");
}
