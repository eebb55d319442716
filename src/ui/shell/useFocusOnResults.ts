"use client";

import { useEffect, useRef } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import type { History } from "@/store/history";

let placesShown = 0;

/** Looks after the focus until the returned function is called; what that takes is loaded with the first act. */
function lookAfter(command: Command | undefined, plan: Plan): () => void {
  let over = false;
  let end = () => undefined as void;
  void import("./landFocus").then(
    ({ landFocus, resultOf }) => {
      if (!over) end = landFocus(() => resultOf(command, plan));
    },
    // Where it cannot be loaded the focus stays as the browser leaves it.
    () => undefined,
  );
  return () => {
    over = true;
    end();
  };
}

/** After every act, and in another place, the focus is on something: on the result, where it is on nothing else. */
export function useFocusOnResults(history: History): void {
  const shown = useRef<History | null>(null);
  useEffect(() => {
    const before = shown.current;
    shown.current = history;
    const { plan, entries, position } = history;
    if (before !== null) return lookAfter((entries[position - 1] ?? entries[position])?.command, plan);
    // The link that led here, which had the focus, has gone with the place before.
    placesShown += 1;
    return placesShown > 1 ? lookAfter(undefined, plan) : undefined;
  }, [history]);
}
