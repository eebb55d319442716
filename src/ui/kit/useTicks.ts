"use client";

import { useState } from "react";

/** Where ticks are kept: until the window is closed, or until they are taken away. */
type Keeping = "sessionStorage" | "localStorage";

const keyOf = (place: string) => `cortijo-ticks:${place}`;

function kept(place: string, keeping: Keeping): string[] {
  try {
    const value: unknown = JSON.parse(window[keeping].getItem(keyOf(place)) ?? "[]");
    return Array.isArray(value) ? value.filter((each) => typeof each === "string") : [];
  } catch {
    return [];
  }
}

/** Forgets the ticks of a place: what they stood for is recorded, or done with. */
export function forgetTicks(place: string): void {
  try {
    window.localStorage.removeItem(keyOf(place));
  } catch {
    // Without storage there is nothing to forget.
  }
}

/**
 * Which things of a list are ticked, each by what it says: a list that has changed since keeps the ticks of what is
 * still the same.
 *
 * @param place what names the list in this browser
 */
export function useTicks(place: string, keeping: Keeping) {
  const [done, setDone] = useState<readonly string[]>(() => kept(place, keeping));
  const tick = (name: string, on: boolean) => {
    const next = on ? [...new Set([...done, name])] : done.filter((each) => each !== name);
    setDone(next);
    try {
      window[keeping].setItem(keyOf(place), JSON.stringify(next));
    } catch {
      // Without storage the ticks last as long as the page.
    }
  };
  return { isTicked: (name: string) => done.includes(name), tick };
}
