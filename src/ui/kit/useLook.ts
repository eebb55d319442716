"use client";

import { useSyncExternalStore } from "react";

const QUERIES = ["(forced-colors: active)", "(prefers-contrast: more)"];

function subscribe(onChange: () => void): () => void {
  const observer = new MutationObserver(onChange);
  observer.observe(document.documentElement, { attributeFilter: ["data-theme"] });
  const queries = QUERIES.map((query) => matchMedia(query));
  for (const query of queries) query.addEventListener("change", onChange);
  return () => {
    observer.disconnect();
    for (const query of queries) query.removeEventListener("change", onChange);
  };
}

const look = (): string =>
  [document.documentElement.dataset.theme, ...QUERIES.map((query) => matchMedia(query).matches)].join(" ");

/** Which colours the page has: changes with the theme, forced colours and contrast, for what is drawn from them. */
export const useLook = (): string => useSyncExternalStore(subscribe, look, () => "");
