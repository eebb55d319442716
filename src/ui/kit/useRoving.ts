"use client";

import { useEffect, useRef } from "react";
import type { Along } from "./roving";

let roving: Promise<typeof import("./roving")> | null = null;

/**
 * Makes a list one stop of the Tab key, within which arrows lead on. What that takes is loaded with the first key that
 * is pressed: whoever goes by pointer or finger needs none of it.
 */
export function useRoving<T extends HTMLElement>(along: Along) {
  const list = useRef<T>(null);
  useEffect(() => {
    let end: (() => void) | undefined;
    const begin = () => {
      roving ??= import("./roving");
      roving.then(
        // Of a list that has gone meanwhile nothing is left.
        ({ rove }) => (end = list.current ? rove(list.current, along) : undefined),
        // Where it cannot be loaded each is a stop of its own, and the next list asks again.
        () => (roving = null),
      );
    };
    if (roving) begin();
    else addEventListener("keydown", begin, { once: true });
    return () => {
      removeEventListener("keydown", begin);
      end?.();
    };
  }, [along]);
  return list;
}
