import { type InputName, MOVED_TOGETHER, type OwnInputs, type Point, pointOf, type Spread, spreadOf } from "./inputs";

/** What an input, alone at each end of its range, makes of some chances. */
export interface Movement {
  names: readonly InputName[];
  low: readonly number[];
  high: readonly number[];
}

/** Inputs that can be at two ends. */
export const movable = (own: OwnInputs): (readonly InputName[])[] =>
  MOVED_TOGETHER.filter((names) =>
    names.some((name) => {
      const { low, expected, high } = spreadOf(name, own);
      return low !== expected || high !== expected;
    }),
  );

/**
 * What one input makes of some chances, with all others as they are expected to be.
 *
 * @param chances of 1, in one order
 */
export const movementOf = (
  names: readonly InputName[],
  own: OwnInputs,
  chances: (point: Point) => readonly number[],
): Movement => ({
  names,
  low: chances(pointOf(own, { names, end: "low" })),
  high: chances(pointOf(own, { names, end: "high" })),
});

/** Chances are combined as hazards: two halves are not one. */
const hazardOf = (chance: number): number => -Math.log1p(-Math.min(chance, 1 - 1e-15));

const chanceOf = (hazard: number): number => -Math.expm1(-hazard);

/**
 * The range of a chance, from what each input moves it by: the movements of the logarithm of its hazard are added as
 * squares, upwards and downwards apart.
 *
 * @param expected of 1
 * @param moved what it becomes with each input at each end, of 1
 * @example rangeOf(0.001, [0.0005, 0.004]).high // 0.004
 */
export function rangeOf(expected: number, moved: readonly number[]): Spread {
  if (expected <= 0 || expected >= 1) return { low: expected, expected, high: expected };
  const hazard = hazardOf(expected);
  let [down, up] = [0, 0];
  for (const chance of moved) {
    const by = Math.log(Math.max(hazardOf(chance), 1e-300) / hazard);
    if (by > 0) up += by * by;
    else down += by * by;
  }
  return {
    low: chanceOf(hazard * Math.exp(-Math.sqrt(down))),
    expected,
    high: chanceOf(hazard * Math.exp(Math.sqrt(up))),
  };
}

/** The ranges of several chances at once, by what inputs move each of them. */
export const rangesOf = (expected: readonly number[], movements: readonly Movement[]): Spread[] =>
  expected.map((each, i) =>
    rangeOf(
      each,
      movements.flatMap(({ low, high }) => [low[i] ?? each, high[i] ?? each]),
    ),
  );
