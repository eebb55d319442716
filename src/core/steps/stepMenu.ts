import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Plan, Pool, StepBody } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";

/** A line of a menu that puts steps in. */
export interface StepOffer {
  label: string;
  steps: StepBody[];
}

/** The box at the moment for which a menu is opened. */
export interface OfferSetting {
  plan: Plan;
  rules: BoxRules;
  unit: UnitFamily;
}

/** Where a kind of step stands in the menu of steps that are no act on the drives themselves. */
export type StepMenu =
  /** In the menu of each pool. */
  | { under: "pool"; offers: (pool: Pool, setting: OfferSetting) => StepOffer[] }
  /** Beside the pools; in a menu of its own where it has a title, with what that says where it is empty. */
  | { under: "drives"; title?: string; none?: string; offers: (setting: OfferSetting) => StepOffer[] }
  /** Nowhere: it is planned by an act of the hands on the box, or by what mends a finding. */
  | { under: "nothing" };

/** Steps that are planned by acts on the box. */
export const BY_HAND: StepMenu = { under: "nothing" };

/** A line for one drive: its size and its serial. */
export const offerFor = (drive: Drive, unit: UnitFamily, step: StepBody): StepOffer => ({
  label: `${shortSize(drive, unit)} ${drive.serial ?? drive.label}`,
  steps: [step],
});
