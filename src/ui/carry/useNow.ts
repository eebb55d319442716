"use client";

import { useEffect, useState } from "react";

/** This moment, in milliseconds since 1970, told again every half minute. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), 30_000);
    return () => clearInterval(clock);
  }, []);
  return now;
}
