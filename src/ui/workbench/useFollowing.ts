"use client";

import { startTransition, useEffect, useRef, useState } from "react";

/** While the hand moves fast, the box is drawn anew no more often than this, in milliseconds. */
const PACE = 60;

/**
 * A value that follows another: at once where it changes now and then, at a steady pace while it changes with every
 * frame.
 */
export function useFollowing<T>(value: T): T {
  const [followed, setFollowed] = useState(value);
  const last = useRef(-Infinity);
  useEffect(() => {
    const follow = () => {
      last.current = performance.now();
      startTransition(() => setFollowed(value));
    };
    const timer = setTimeout(follow, Math.max(0, last.current + PACE - performance.now()));
    return () => clearTimeout(timer);
  }, [value]);
  return followed;
}
