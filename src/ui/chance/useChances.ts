"use client";

import { useEffect, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { type Followed, followChances } from "./followChances";

/** The chances of a plan as far as they are known. The last ones stay until new ones are there. */
export interface Chances extends Followed {
  /** Whether they are of another state of the plan than that on the page. */
  isOld: boolean;
  again: () => void;
}

/**
 * The chances of a plan, worked out whenever it changes.
 *
 * @param moments at which the box is at rest, with commas between: text, so that it is the same where they are
 * @example useChances(plan, "0,8").told?.ranged?.along.any
 */
export function useChances(plan: Plan, moments: string): Chances {
  const [known, setKnown] = useState<Followed & { of: Plan | null }>({
    told: null,
    share: null,
    trouble: null,
    of: null,
  });
  const [attempt, setAttempt] = useState(0);
  useEffect(
    () =>
      followChances(plan, moments, (state) =>
        setKnown((old) => ({ ...state, told: state.told ?? old.told, of: plan })),
      ),
    [plan, moments, attempt],
  );
  const { of, ...rest } = known;
  return { ...rest, isOld: of !== plan, again: () => setAttempt((old) => old + 1) };
}
