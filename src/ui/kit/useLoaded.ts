"use client";

import { useCallback, useEffect, useState } from "react";

/** A part of the program that is loaded when it is first wanted. */
export interface Loaded<T> {
  value: T | null;
  /** Tries once more, where it could not be loaded; null otherwise. */
  again: (() => void) | null;
}

/**
 * Loads what the page works with, and not what it shows, when it is first wanted.
 *
 * @param load imports it; the same function at each call
 */
export function useLoaded<T>(load: () => Promise<T>, wanted: boolean): Loaded<T> {
  const [state, setState] = useState<{ value: T | null; failed: boolean }>({ value: null, failed: false });
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    load().then(
      (value) => !gone && setState({ value, failed: false }),
      () => !gone && setState((old) => ({ ...old, failed: old.value === null })),
    );
    return () => {
      gone = true;
    };
  }, [load, wanted, attempt]);
  const again = useCallback(() => {
    setState({ value: null, failed: false });
    setAttempt((old) => old + 1);
  }, []);
  return { value: state.value, again: state.failed ? again : null };
}
