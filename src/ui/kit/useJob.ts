"use client";

import type { Remote } from "comlink";
import { useEffect, useRef, useState } from "react";
import type { Work } from "@/workers/work.worker";

/** How a piece of work stands. The last result stays until the next one is there. */
export interface JobState<T> {
  result: T | null;
  /** 0 to 1 while it is under way, null otherwise. */
  progress: number | null;
  trouble: string | null;
  cancelled: boolean;
  cancel: () => void;
  again: () => void;
}

/** Shorter work than this shows no progress, so that nothing flickers. */
const PATIENCE = 150;

/**
 * Keeps a piece of work in a worker going for the inputs at hand: when they change, the old one is ended and a new one
 * begun.
 *
 * @param start changes when the inputs do (`useCallback`); null while there is nothing to do
 * @param rest for how long the inputs must stand still before it begins, in milliseconds
 */
export function useJob<T>(
  start: ((work: Remote<Work>, onProgress: (share: number) => void) => Promise<T>) | null,
  rest = 0,
): JobState<T> {
  const [state, setState] = useState<Omit<JobState<T>, "cancel" | "again">>({
    result: null,
    progress: null,
    trouble: null,
    cancelled: false,
  });
  const [attempt, setAttempt] = useState(0);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => {
    if (!start) return;
    let over = false;
    let job: { cancel: () => void } | null = null;
    let share = 0;
    const patience = setTimeout(() => !over && setState((old) => ({ ...old, progress: share })), PATIENCE);
    const end = () => {
      over = true;
      clearTimeout(patience);
      job?.cancel();
    };
    const begin = async () => {
      const [{ startJob }] = await Promise.all([
        import("@/workers/startJob"),
        new Promise((resolve) => setTimeout(resolve, rest)),
      ]);
      if (over) return;
      const started = startJob(start, (value) => {
        share = value;
        if (!over) setState((old) => (old.progress === null ? old : { ...old, progress: value }));
      });
      job = started;
      const result = await started.result;
      if (!over) setState({ result, progress: null, trouble: null, cancelled: false });
    };
    begin()
      .catch(
        (error: unknown) =>
          !over &&
          setState((old) => ({
            ...old,
            progress: null,
            trouble: error instanceof Error ? error.message : "The computation failed.",
          })),
      )
      .finally(() => clearTimeout(patience));
    stop.current = () => {
      end();
      setState((old) => ({ ...old, progress: null, cancelled: true }));
    };
    return end;
  }, [start, attempt, rest]);
  return { ...state, cancel: () => stop.current?.(), again: () => setAttempt((old) => old + 1) };
}
