import { EDITION, ofThisEdition } from "../document/edition";
import type { Plan } from "../document/plan";
import { withMissingOutOfBays } from "./missingOutOfBays";
import { withParityNamed } from "./parityNamed";

/** How plans of an older program become plans of this one. */
export interface Migration {
  /** What of a plan it is about. */
  about: string;
  /** Why older plans cannot stay as they are. */
  why: string;
  /** Brings a plan that fits the schema up to date; one that is up to date already is returned as it is. */
  migrate: (plan: Plan) => Plan;
}

/**
 * The migrations in the order in which they are made: what box a plan is of comes first, since by its rules the rest is
 * decided. A new one is added at the end, never changed later, and gets a test of its own.
 */
export const MIGRATIONS: readonly Migration[] = [
  {
    about: "edition",
    why:
      `The ready-made kinds of box answer some questions otherwise since edition ${EDITION}. What the box of an ` +
      "older plan kept or did by itself is written into its rules, so that its pools hold what they held.",
    migrate: ofThisEdition,
  },
  {
    about: "parity drives",
    why:
      "Which drives hold the parity was worked out again at each look, and a change elsewhere could move it. It " +
      "is named in the group, once and for all.",
    migrate: withParityNamed,
  },
  {
    about: "missing drives",
    why:
      "A drive that is not in the box holds no bay: where it was is kept beside it. Scripts may send one that " +
      "still says its bay.",
    migrate: withMissingOutOfBays,
  },
];

/**
 * A plan brought up to date. A plan that does not say its edition is of the first.
 *
 * @example upToDate(planOfAnOlderFile).edition // 2
 */
export const upToDate = (plan: Plan): Plan => MIGRATIONS.reduce((then, { migrate }) => migrate(then), plan);
