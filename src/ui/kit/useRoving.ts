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
    let end: (() => void) | null = null;
    let over = false;
    const begin = () => {
      roving ??= import("./roving");
      roving.then(
        ({ rove }) => {
          if (!over && list.current) end = rove(list.current, along);
        },
        // Where it cannot be loaded each is a stop of its own, and the next list asks again.
        () => (roving = null),
      );
    };
    if (roving) begin();
    else addEventListener("keydown", begin, { once: true });
    return () => {
      over = true;
      removeEventListener("keydown", begin);
      end?.();
    };
  }, [along]);
  return list;
}
