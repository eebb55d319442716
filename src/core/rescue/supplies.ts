import { driveOf } from "../box/find";
import type { Drive, Step } from "../document/plan";
import { isGone } from "../drives/driveState";
import { moduleOf } from "../steps/registry";
import { soldFrom } from "../sequences/parts";
import { driveToBuy } from "../walk/driveToBuy";
import type { RescueSetting, ToBuy } from "./rescue";
import { freeId } from "../records/freeId";

/**
 * Drives for a course, one after the other: those of the plan that are named, and new ones that are bought, each with
 * an id of its own. None is given out twice.
 */
export interface Supplies {
  /** A drive that is there; undefined where it is not, or is taken already. */
  take: (id: string) => Drive | undefined;
  isTaken: (id: string) => boolean;
  /** A drive to be bought, of a size that is sold; one that the plan has for this already is taken again. */
  buy: (least: ToBuy) => Drive;
  /** What is new in the plan. */
  buys: Drive[];
}

/**
 * Drives that steps of the plan use for something else than bringing this pool back: for another pool, or in the place
 * of a drive of this one that works.
 */
function boughtForOthers({ plan, pool }: RescueSetting): Set<string> {
  const members = new Set(pool.groups.flatMap((group) => group.drives));
  const isFor = (step: Step): boolean => {
    if (!("drive" in step) || step.drive === undefined || !("by" in step))
      return "pool" in step && step.pool === pool.id && !("group" in step);
    const old = driveOf(plan, step.drive);
    return members.has(step.drive) && old !== undefined && (isGone(old) || old.health.state !== "good");
  };
  return new Set(plan.steps.flatMap((step) => (isFor(step) ? [] : moduleOf(step).handles(step))));
}

/**
 * What a course can take its drives from.
 *
 * @example suppliesFor(setting).buy({ leastBytes: 3.9e12, medium: "hdd", bus: "sata", logicalSector: 512 }).bytes
 * // of a 4 TB drive
 */
export function suppliesFor(setting: RescueSetting): Supplies {
  const { plan } = setting;
  const elsewhere = boughtForOthers(setting);
  const buys: Drive[] = [];
  const used = new Set<string>();
  const taken = (drive: Drive): Drive => {
    used.add(drive.id);
    return drive;
  };
  const bought = ({ leastBytes, medium, bus, logicalSector }: ToBuy): Drive => {
    const bytes = soldFrom(leastBytes);
    const known = plan.drives.find(
      (drive) =>
        drive.toBuy &&
        !used.has(drive.id) &&
        !elsewhere.has(drive.id) &&
        drive.bytes === bytes &&
        drive.medium === medium,
    );
    if (known) return known;
    const ids = [...plan.drives, ...buys].map(({ id }) => id);
    const drive = driveToBuy(freeId("b", ids), { bytes, medium, bus, logicalSector }, plan.prices ?? []);
    buys.push(drive);
    return drive;
  };
  return {
    take: (id) => {
      const drive = used.has(id) ? undefined : driveOf(plan, id);
      return drive && taken(drive);
    },
    isTaken: (id) => used.has(id),
    buy: (least) => taken(bought(least)),
    buys,
  };
}
