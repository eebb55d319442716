import type { Mishap } from "../simulator/mishaps";

/** A mishap at a moment of a rehearsal. */
export interface Strike {
  /** The step of the plan from whose turn on its hours are counted, by its id; none: from the beginning. */
  step?: string;
  /** So many hours after that; none: just before the step is begun. */
  hours: number;
  mishap: Mishap;
}

/**
 * What the owner does when something has gone wrong. *advised*: what is said under What to do now, until the box is
 * whole again, and then on with the plan. *go-on*: the next step, as if nothing had happened. *put-back*: the drive
 * that is out goes in again, at once. *wait*: nothing, until what the box does has ended, or for a day.
 */
export type Answer = "advised" | "go-on" | "put-back" | "wait";

/** What an owner does each time, without being asked: what is advised, or what many do. */
export type Owner = Extract<Answer, "advised" | "go-on">;

/** All that a rehearsal of a plan follows from. */
export interface Script {
  /** From which all that is drawn follows. */
  seed: number;
  strikes: readonly Strike[];
  /** What the owner does each time that something has gone wrong, in this order. */
  answers: readonly Answer[];
  /** What the owner does after these; nothing where the owner is asked. */
  otherwise?: Owner;
}
