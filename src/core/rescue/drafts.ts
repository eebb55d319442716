import type { UnitFamily } from "../bytes/formatBytes";
import type { Drive, Step, StepBody } from "../document/plan";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";
import type { Hours } from "../time/hours";

/** An act before it is known what it takes: with a step, the walk tells. */
export interface Draft {
  what: string;
  does: string;
  why: string;
  hours?: Hours;
  step?: StepBody;
}

/** A course before it is tried. */
export interface Course {
  drafts: Draft[];
  buys: Drive[];
}

/** Whether a step of the plan is the one that a course wants. */
export function isPlanned(step: Step, body: StepBody): boolean {
  if (step.disabled || step.kind !== body.kind) return false;
  const has = new Map<string, unknown>(Object.entries(step));
  return Object.entries(body).every(
    ([key, value]) => key === "together" || key === "id" || JSON.stringify(has.get(key)) === JSON.stringify(value),
  );
}

/** The hours of a wait for a delivery: shops are quicker or slower than they say. */
export const waitFor = (days: number): Hours => ({ low: days * 16, expected: days * 24, high: days * 48 });

/** How many days a delivery takes where the plan does not say. */
export const USUAL_DELIVERY_DAYS = 2;

/** A drive in a sentence; one that is yet to be bought by its size alone. */
export const nameIn = (drive: Drive, family: UnitFamily): string =>
  drive.toBuy ? `the new ${shortSize(drive, family)} drive` : nameOfDrive(drive, family);
