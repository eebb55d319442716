"use client";

import { useEffect, useState } from "react";

/** The chances of loss come after all else on the workbench: nothing there waits for them. In milliseconds. */
export const CHANCES_AFTER = 2500;

/**
 * Whether what asks has been shown for so long: for what may come after the rest, so that a slow line and a slow phone
 * have the rest first.
 *
 * @param ms in milliseconds
 */
export function useAfter(ms: number): boolean {
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setOver(true), ms);
    return () => clearTimeout(timer);
  }, [ms]);
  return isOver;
}
