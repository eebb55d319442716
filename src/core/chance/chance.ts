import type { End } from "./chain";

/** How likely something of a pool is lost by its drives, of 1, by how it comes about. */
export type Chance = Record<End, number>;

export const NO_CHANCE: Readonly<Chance> = { waiting: 0, rebuilding: 0, sector: 0, cutOff: 0 };

/** That more drives fail than some of the data bears: all of it, or of some kinds of pool what was on them, is lost. */
export const poolLost = ({ waiting, rebuilding }: Pick<Chance, "waiting" | "rebuilding">): number =>
  waiting + rebuilding;

/** That something is lost: the pool, or a file that lay on a sector that could not be read. */
export const ended = (chance: Pick<Chance, "waiting" | "rebuilding" | "sector">): number =>
  poolLost(chance) + chance.sector;
