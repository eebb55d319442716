"use client";

import { useEffect, useState, useSyncExternalStore } from "react";

// Practice boxes have clocks of their own, which can be put ahead: what is recorded of such a box is recorded by its
// clock, and of any other by this device's.

const ahead = new Map<string, number>();
const told = new Set<() => void>();

/** When a clock was last put ahead, by this device's. */
let putAt = 0;

/** The plan whose place is shown, by the page's address. */
const shownPlan = (): string => (typeof location === "undefined" ? "" : (location.pathname.split("/")[2] ?? ""));

/** How far the clock of a plan's box is ahead of this device's, in milliseconds. */
export const aheadOf = (plan: string): number => ahead.get(plan) ?? 0;

/** Puts the clock of a plan's box ahead. */
export function putAhead(plan: string, milliseconds: number): void {
  if (aheadOf(plan) === milliseconds) return;
  ahead.set(plan, milliseconds);
  putAt = Date.now();
  for (const tell of told) tell();
}

/** This moment by the clock of the box whose plan is shown, in milliseconds since 1970. */
export const boxNow = (): number => Date.now() + aheadOf(shownPlan());

const follow = (tell: () => void) => {
  told.add(tell);
  return () => told.delete(tell);
};

/** This moment by the clock of the box whose plan is shown, told again every ten seconds and when it is put ahead. */
export function useBoxNow(): number {
  const far = useSyncExternalStore(
    follow,
    () => aheadOf(shownPlan()),
    () => 0,
  );
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(clock);
  }, []);
  // No older than the moment at which it was put ahead.
  return Math.max(now, putAt) + far;
}
