"use client";

import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

/** Whether the page is being printed: what is only for paper stands on it by then, and not before. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const paper = matchMedia("print");
    // The browser takes the page as it is when these have ended.
    const begin = () => flushSync(() => setPrinting(true));
    const end = () => setPrinting(false);
    const follow = () => (paper.matches ? begin() : end());
    window.addEventListener("beforeprint", begin);
    window.addEventListener("afterprint", end);
    paper.addEventListener("change", follow);
    return () => {
      window.removeEventListener("beforeprint", begin);
      window.removeEventListener("afterprint", end);
      paper.removeEventListener("change", follow);
    };
  }, []);
  return printing;
}
