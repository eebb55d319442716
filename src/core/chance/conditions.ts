import type { Plan } from "../document/plan";
import type { OwnInputs, Point } from "./inputs";

/** Hours between two readings of all that is stored, where nobody says otherwise: a month. */
export const USUAL_SCRUB_HOURS = 730;

/** What the owner does about failures, and what the box has against them. */
export interface Conditions {
  /** Whether the box tells that a drive has failed. */
  alerts: boolean;
  /** Hours between two readings of all that is stored. */
  scrubHours: number;
  /** Whether a drive that fits lies on the shelf. */
  spareOnShelf: boolean;
  /** Whether a battery supply keeps the box running while the power is cut. */
  ups: boolean;
}

/**
 * The conditions of a plan.
 *
 * @example conditionsOf(plan) // { alerts: true, scrubHours: 730, spareOnShelf: false, ups: false }
 */
export const conditionsOf = ({ chance, box }: Pick<Plan, "chance" | "box">): Conditions => ({
  alerts: chance?.alerts ?? true,
  scrubHours: chance?.scrubHours ?? USUAL_SCRUB_HOURS,
  spareOnShelf: chance?.spareOnShelf ?? false,
  ups: box.ups === true,
});

/** The owner's own values of inputs. */
export const ownInputsOf = ({ chance }: Pick<Plan, "chance">): OwnInputs => chance?.inputs ?? {};

/** How often a replacement comes, an hour: a failure has to be noticed, and a drive to be fetched. */
export const arrivals = (point: Point, { alerts, spareOnShelf }: Conditions): number =>
  1 /
  ((alerts ? point.noticeWithAlerts : point.noticeWithout) +
    (spareOnShelf ? point.deliveryFromShelf : point.deliveryOrdered));

/** A battery supply leaves one power cut in ten. */
export const powerCuts = (point: Point, { ups }: Conditions): number => point.powerCuts / (ups ? 10 : 1);
