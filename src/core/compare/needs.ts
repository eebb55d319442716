import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { ofBoxes } from "../chance/chanceWords";
import { lengthWords } from "../time/hoursWords";
import { counted, oneOrMany } from "../words/counted";
import type { Choice } from "./compare";

/** What the owner needs of a pool. What is left out is not asked for. */
export interface Needs {
  /** It survives the loss of any so many drives. */
  tolerance?: number;
  /** At least so much usable space, in bytes. */
  usableBytes?: Bytes;
  /** No more bays than this. */
  bays?: number;
  /** It must be able to grow by one drive at a time, or at least by another group. */
  grows?: "by-drive" | "by-group";
  /** No drive may idle above this share of its bytes, 0 to 1. */
  idleShare?: number;
  /** No rebuild may be expected to take longer, in hours. */
  rebuildHours?: number;
  /** No more of like boxes may lose something by their drives in a year, of 1. */
  lossAYear?: number;
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

const survives = (tolerance: number) =>
  tolerance === 0
    ? "loses data if any drive fails"
    : `survives only ${oneOrMany(tolerance, "one failed drive", "failed drives")}`;

/** Why a choice does not meet each need, where it is asked for; null where it does. */
const MISFITS: {
  readonly [N in keyof Needs]-?: (need: NonNullable<Needs[N]>, choice: Weighed, family: UnitFamily) => string | null;
} = {
  tolerance: (least, { figures }) => (figures.tolerance < least ? survives(figures.tolerance) : null),
  usableBytes: (least, { figures }, family) =>
    figures.usableBytes < least ? `${formatBytes(least - figures.usableBytes, family)} short` : null,
  bays: (most, { figures }) => (figures.drives > most ? `takes ${counted(figures.drives, "bay")}` : null),
  grows: (how, { figures: { growth } }) => {
    if (growth.byDrive) return null;
    if (how === "by-drive") return "cannot grow by one drive";
    return growth.byGroup ? null : "can grow only by replacing its drives";
  },
  idleShare: (most, choice) => {
    const idle = idlest(choice);
    return idle && idle.share > most ? `${Math.round(idle.share * 100)} % of a drive unused` : null;
  },
  rebuildHours: (most, { figures: { rebuild } }) => {
    if (!rebuild) return "cannot be rebuilt";
    return rebuild.expected > most ? `a rebuild takes ${lengthWords(rebuild.expected)}` : null;
  },
  lossAYear: (most, { figures: { chance } }) =>
    chance && chance.year > most ? `${ofBoxes(chance.year)} lose something in a year` : null,
};

/** What of a choice is held against needs. */
type Weighed = Pick<Choice, "pool" | "figures">;

/** The need itself where it is not met. */
function misfit<N extends keyof Needs>(need: N, choice: Weighed, needs: Needs, family: UnitFamily): Misfit[] {
  const asked = needs[need];
  if (asked === undefined) return [];
  const say = MISFITS[need] as (need: NonNullable<Needs[N]>, choice: Weighed, family: UnitFamily) => string | null;
  const reason = say(asked, choice, family);
  return reason === null ? [] : [{ need, reason }];
}

/**
 * The needs that a choice does not meet, with reasons.
 *
 * @param family the units in which the reasons speak
 * @example misfits(raid5OfThree4TB, { tolerance: 2 })
 * // [{ need: "tolerance", reason: "survives only one failed drive" }]
 */
export function misfits(choice: Weighed, needs: Needs, family: UnitFamily = "TB"): Misfit[] {
  return (Object.keys(MISFITS) as (keyof Needs)[]).flatMap((need) => misfit(need, choice, needs, family));
}
