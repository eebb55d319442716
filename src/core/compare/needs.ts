import { counted } from "../words/counted";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { Choice } from "./compare";

/** What the owner needs of a pool. What is left out is not asked for. */
export interface Needs {
  /** Any so many drives may fail. */
  tolerance?: number;
  /** At least so much usable space, in bytes. */
  usableBytes?: Bytes;
  /** No more bays than this. */
  bays?: number;
  /** It must be able to grow by one drive at a time, or at least by a further group. */
  grows?: "by-drive" | "by-group";
  /** No drive may idle above this share of its bytes, 0 to 1. */
  idleShare?: number;
  /** No rebuild may be expected to take longer, in hours. */
  rebuildHours?: number;
}

/** A need that a choice does not meet, and by how much, in a few words. */
export interface Misfit {
  need: keyof Needs;
  reason: string;
}

/** The drive of a choice of which most lies idle, by its share; null where none does. */
function idlest(choice: Pick<Choice, "pool">): { drive: string; share: number } | null {
  const rooms = choice.pool.groups.flatMap((group) =>
    group.rooms.map((room) => {
      const taken = group.bands.reduce(
        (sum, band) =>
          sum +
          band.members
            .filter((member) => member.drive === room.drive)
            .reduce((own, member) => own + member.length + band.metadata, 0),
        0,
      );
      return { drive: room.drive, share: room.bytes === 0 ? 0 : Math.max(0, room.length - taken) / room.bytes };
    }),
  );
  return rooms.reduce<{ drive: string; share: number } | null>(
    (most, each) => (each.share > (most?.share ?? 0) ? each : most),
    null,
  );
}

const may = (tolerance: number) =>
  tolerance === 0
    ? "no drive may fail"
    : tolerance === 1
      ? "only one drive may fail"
      : `only ${tolerance} drives may fail`;

/**
 * The needs that a choice does not meet, with reasons.
 *
 * @param family the units in which the reasons speak
 * @example misfits(raid5OfThree4TB, { tolerance: 2 }) // [{ need: "tolerance", reason: "only one drive may fail" }]
 */
export function misfits(choice: Pick<Choice, "pool" | "figures">, needs: Needs, family: UnitFamily = "TB"): Misfit[] {
  const { figures } = choice;
  const found: Misfit[] = [];
  if (needs.tolerance !== undefined && figures.tolerance < needs.tolerance)
    found.push({ need: "tolerance", reason: may(figures.tolerance) });
  if (needs.usableBytes !== undefined && figures.usableBytes < needs.usableBytes)
    found.push({
      need: "usableBytes",
      reason: `${formatBytes(needs.usableBytes - figures.usableBytes, family)} short`,
    });
  if (needs.bays !== undefined && figures.drives > needs.bays)
    found.push({ need: "bays", reason: `takes ${counted(figures.drives, "bay")}` });
  if (needs.grows === "by-drive" && !figures.growth.byDrive)
    found.push({ need: "grows", reason: "cannot grow by one drive" });
  if (needs.grows === "by-group" && !figures.growth.byDrive && !figures.growth.byGroup)
    found.push({ need: "grows", reason: "can grow only by replacing its drives" });
  const idle = needs.idleShare === undefined ? null : idlest(choice);
  if (needs.idleShare !== undefined && idle && idle.share > needs.idleShare)
    found.push({ need: "idleShare", reason: `${Math.round(idle.share * 100)} % of a drive idle` });
  if (needs.rebuildHours !== undefined) {
    if (!figures.rebuild) found.push({ need: "rebuildHours", reason: "cannot be rebuilt" });
    else if (figures.rebuild.expected > needs.rebuildHours)
      found.push({ need: "rebuildHours", reason: `a rebuild takes about ${Math.round(figures.rebuild.expected)} h` });
  }
  return found;
}
