"use client";

import { createContext, useContext } from "react";

/** The moment that the hand is at. The box follows it, in its own time where it is a large one. */
export interface MomentChoice {
  at: number;
  goTo: (moment: number) => void;
}

export const MomentContext = createContext<MomentChoice>({ at: 0, goTo: () => {} });

/** The chosen moment, at once. */
export const useMoment = (): MomentChoice => useContext(MomentContext);
