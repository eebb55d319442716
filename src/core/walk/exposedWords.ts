import { lengthWords } from "../time/hoursWords";
import { survivesMeanwhile } from "../words/survives";
import type { Finding } from "../findings/finding";
import type { Exposure, WalkedStep } from "./moment";

/**
 * How exposed a pool is while a step runs, and for how long, within a sentence: all the while, or until a new drive is
 * filled, where the step goes on with what that brings.
 *
 * @param hours the step's, as expected
 * @example exposedWords({ redundancy: 0 }, 45) // "meanwhile, one more failed drive would lose data"
 * @example exposedWords({ redundancy: 0, share: 0.27 }, 45)
 * // "until the new drive is filled, in about 12 hours, one more failed drive would lose data"
 */
export function exposedWords({ redundancy, share }: Pick<Exposure, "redundancy" | "share">, hours: number): string {
  const when = share === undefined ? "meanwhile" : `until the new drive is filled, in ${lengthWords(hours * share)}`;
  return `${when}, ${survivesMeanwhile(redundancy)}`;
}

/**
 * What is found of a step besides what its exposure says, for where that is told in `exposedWords`.
 *
 * @example besidesExposure(walked).some(({ code }) => code === "no-redundancy") // false where it is exposed
 */
export const besidesExposure = ({ findings, exposure }: Pick<WalkedStep, "findings" | "exposure">): Finding[] =>
  exposure.length === 0 ? findings : findings.filter(({ code }) => code !== "no-redundancy");
