import type { ReactNode } from "react";
import { VISITED_KEY } from "../preferences/keys";

/** What a page that began with the first visit goes on to show until the demo itself is there; null on later visits. */
export const firstVisit: { shows: ReactNode } = { shows: null };

/** That Cortijo has been here: the first page of later visits begins with the list of plans. */
export function markVisited(): void {
  document.documentElement.dataset.visited = "";
  try {
    localStorage.setItem(VISITED_KEY, "1");
  } catch {
    // Where the browser keeps nothing, each visit is the first.
  }
}
