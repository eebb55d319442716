"use client";

import { useState } from "react";
import type { RescueAct } from "@/core/rescue/rescue";

const keyOf = (place: string) => `cortijo-rescue:${place}`;

/** An act by what it says: a course that has changed since keeps the ticks of what is still the same. */
const named = ({ what, does }: RescueAct): string => `${what}: ${does}`;

function kept(place: string): string[] {
  try {
    const value: unknown = JSON.parse(window.sessionStorage.getItem(keyOf(place)) ?? "[]");
    return Array.isArray(value) ? value.filter((each) => typeof each === "string") : [];
  } catch {
    return [];
  }
}

/** Which acts of a course are done; kept for as long as the window is open. */
export function useTicks(place: string, acts: readonly RescueAct[]) {
  const [done, setDone] = useState<readonly string[]>(() => kept(place));
  const ticked = new Set(acts.flatMap((act, i) => (done.includes(named(act)) ? [i] : [])));
  const tick = (i: number, on: boolean) => {
    const act = acts[i];
    if (!act) return;
    const next = on ? [...new Set([...done, named(act)])] : done.filter((each) => each !== named(act));
    setDone(next);
    try {
      window.sessionStorage.setItem(keyOf(place), JSON.stringify(next));
    } catch {
      // Without storage the ticks last as long as the page.
    }
  };
  return { ticked, tick };
}
