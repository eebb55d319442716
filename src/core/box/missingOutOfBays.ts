import type { Drive, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";

/** A missing drive on the shelf, with the bay that it was in. */
function outOfItsBay(drive: Drive): Drive {
  const bay = bayOf(drive);
  return drive.state === "missing" && bay !== null ? { ...drive, place: { shelf: true }, lastBay: bay } : drive;
}

/**
 * The plan with every missing drive out of the bay that it is said to be in, which is kept as its last one.
 *
 * @returns the same plan where none is
 * @example withMissingOutOfBays(plan).drives[1] // { …, state: "missing", lastBay: 2, place: { shelf: true } }
 */
export function withMissingOutOfBays(plan: Plan): Plan {
  const drives = plan.drives.map(outOfItsBay);
  return drives.every((drive, i) => drive === plan.drives[i]) ? plan : { ...plan, drives };
}
