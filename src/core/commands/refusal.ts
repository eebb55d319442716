/** Thrown inside a command to give up; `applyCommand` turns it into a result. */
export class Refusal extends Error {}

/** Gives a command up, with a sentence for the owner. */
export const refuse = (reason: string): never => {
  throw new Refusal(reason);
};

/** A thing that has to be there; `what` begins the sentence of the refusal. */
export function need<T>(thing: T | null | undefined, what: string): T {
  return thing ?? refuse(`${what} is no longer in the plan.`);
}
