import { type InputName, type InputUnit, USUAL_INPUTS } from "@/core/chance/inputs";

/**
 * Inputs that move together, by one name.
 *
 * @example inputGroupWords(["stress"]) // "The others fail more often while one is out"
 */
export const inputGroupWords = ([name = "stress", ...others]: readonly InputName[]): string =>
  others.length > 0 ? "Hard disks fail, at any age" : USUAL_INPUTS[name].name;

/** In which unit an input is typed, by how many of these the plan's own unit is, and what is said after the figure. */
export const TYPED: Readonly<Record<InputUnit, { times: number; unit: string }>> = {
  "share-a-year": { times: 100, unit: "% a year" },
  times: { times: 1, unit: "times" },
  "per-byte": { times: 1e15, unit: "in 10^15 bytes" },
  "per-hour": { times: 8766, unit: "a year" },
  hours: { times: 1, unit: "hours" },
  "a-year": { times: 1, unit: "a year" },
  share: { times: 100, unit: "%" },
  days: { times: 1, unit: "days" },
};

/** A value as it is typed, with no more digits than it has. */
export const typedValue = (value: number, unit: InputUnit): string =>
  String(Number((value * TYPED[unit].times).toPrecision(3)));
