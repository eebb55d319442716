"use client";

import { useState } from "react";
import type { MeasureId } from "@/core/compare/measures";
import type { Needs } from "@/core/compare/needs";

/** What is set on the page and no part of the plan: which drives are compared, what is needed, how it is sorted. */
export interface CompareState {
  /** Ids of the drives; null for those of the first pool, or all where there is none. */
  drives: string[] | null;
  needs: Needs;
  sort: MeasureId;
  network: string;
  axes: { x: MeasureId; y: MeasureId };
  hideBeaten: boolean;
  panel: "scatter" | "next drive";
}

const START: CompareState = {
  drives: null,
  needs: { tolerance: 1 },
  sort: "usable",
  network: "1 GbE",
  axes: { x: "usable", y: "loss-of-two" },
  hideBeaten: false,
  panel: "scatter",
};

// Kept as long as the page's code is, so that going to the workbench and back loses nothing.
const kept = new Map<string, CompareState>();

/** The page's state for a plan, and how to change parts of it. */
export function useCompareState(plan: string): [CompareState, (change: Partial<CompareState>) => void] {
  const [state, setState] = useState(() => kept.get(plan) ?? START);
  const change = (part: Partial<CompareState>) =>
    setState((old) => {
      const next = { ...old, ...part };
      kept.set(plan, next);
      return next;
    });
  return [state, change];
}
