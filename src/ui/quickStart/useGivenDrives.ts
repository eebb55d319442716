"use client";

import { useEffect, useMemo, useState } from "react";
import { isPasted, readPasted, readTyped, type GivenDrives } from "./givenDrives";

/** What was pasted, with what was read of it. */
interface Read {
  text: string;
  given: GivenDrives;
}

/**
 * The drives of what somebody types or pastes, as it stands.
 *
 * @returns null while nothing is there, and while what was pasted is being read
 */
export function useGivenDrives(text: string): GivenDrives | null {
  const [read, setRead] = useState<Read | null>(null);
  const pasted = isPasted(text);
  useEffect(() => {
    let over = false;
    if (pasted) void readPasted(text).then((given) => over || setRead({ text, given }));
    return () => {
      over = true;
    };
  }, [text, pasted]);
  return useMemo(() => {
    if (text.trim() === "") return null;
    if (pasted) return read?.text === text ? read.given : null;
    return readTyped(text);
  }, [text, pasted, read]);
}
