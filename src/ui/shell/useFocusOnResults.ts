"use client";

import { useEffect, useRef } from "react";
import type { Plan } from "@/core/document/plan";
import type { HistoryEntry } from "@/store/history";
import type { SessionState } from "@/store/planSession";

let placesShown = 0;

/** What is said and done after an act, until the returned function is called; it is loaded with the first one. */
function lookAfter(entry: HistoryEntry | undefined, plan: Plan, isTold: boolean): () => void {
  // Null once it is over.
  let end: (() => void) | null | undefined;
  import("./afterAct").then(
    ({ afterAct }) => {
      if (end !== null) end = afterAct(entry, plan, isTold);
    },
    // Where it cannot be loaded the focus stays as the browser leaves it.
    () => undefined,
  );
  return () => {
    end?.();
    end = null;
  };
}

/**
 * After every act it is heard what was done, and the focus is on something, also in another place: on the result, where
 * it is on nothing else.
 */
export function useFocusOnResults({ history, notice }: Pick<SessionState, "history" | "notice">): void {
  const shown = useRef<Pick<SessionState, "history" | "notice"> | null>(null);
  const end = useRef(() => undefined as void);
  useEffect(() => {
    const before = shown.current;
    shown.current = { history, notice };
    if (before?.history === history) return;
    const { plan, entries, position } = history;
    // The link that led here, which had the focus, has gone with the place before.
    if (before === null && ++placesShown === 1) return;
    end.current();
    end.current = before
      ? lookAfter(entries[position - 1] ?? entries[position], plan, notice !== before.notice)
      : lookAfter(undefined, plan, true);
  }, [history, notice]);
  useEffect(() => () => end.current(), []);
}
