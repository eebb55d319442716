import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { Said } from "@/core/simulator/practice";

/** What each is said of: the drive, the step by its label, and why. */
interface About {
  drive: string;
  label: string;
  why: string;
}

const WORDS: Readonly<Record<Said["what"], (about: About) => string>> = {
  began: ({ label }) => `Began: ${label}.`,
  ended: ({ label }) => `Ended: ${label}.`,
  refused: ({ label, why }) => `Refused: ${label}. ${why}`.trim(),
  stopped: ({ label }) => `Stopped, since it could not go on: ${label}.`,
  "thrown-out": ({ drive }) => `${drive} does not answer any more: it was thrown out.`,
  "not-there": ({ drive }) => `${drive} is not there any more.`,
  "spare-took-over": ({ drive }) => `${drive}, a hot spare, takes its place.`,
  back: ({ drive }) => `${drive} is there again.`,
  "filled-again": ({ drive }) => `${drive} was away too long: it is filled from the others.`,
  "power-cut": () => "The power was cut, and came back.",
  gone: () => "The box is gone, with every drive that was in it.",
  forgotten: ({ label }) => `Forgotten: ${label}.`,
};

/**
 * What a practice box has said of itself, as a sentence.
 *
 * @param labelOf what a step is called, by its id
 * @example saidWords({ hours: 3, what: "thrown-out", drive: "d2" }, plan, labelOf, "TB")
 * // "The 4 TB drive TJ4-3058 does not answer any more: it was thrown out."
 */
export function saidWords(
  { what, drive, step, why = "" }: Said,
  plan: Plan,
  labelOf: (step: string) => string,
  unit: UnitFamily,
): string {
  const found = plan.drives.find(({ id }) => id === drive);
  return WORDS[what]({
    drive: found ? `The ${shortSize(found, unit)} drive ${found.serial ?? found.label}` : "A drive",
    label: step === undefined ? "A step" : labelOf(step),
    why,
  });
}
