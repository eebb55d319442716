"use client";

import { useCallback, useMemo, useState } from "react";
import type { Drive } from "@/core/document/plan";

const NONE: ReadonlySet<string> = new Set();

const toggled = (set: ReadonlySet<string>, id: string): ReadonlySet<string> => {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
};

/** Some of the drives, put in and taken out one by one; one that is no longer among them falls out. */
export function useDriveSet(drives: readonly Drive[]) {
  const [chosen, setChosen] = useState(NONE);
  const present = useMemo(() => new Set(drives.map((drive) => drive.id)), [drives]);
  const ids = useMemo<ReadonlySet<string>>(
    () => new Set([...chosen].filter((id) => present.has(id))),
    [chosen, present],
  );
  const toggle = useCallback((id: string) => setChosen((old) => toggled(old, id)), []);
  const clear = useCallback(() => setChosen(NONE), []);
  return { ids, toggle, clear };
}
