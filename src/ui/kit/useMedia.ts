"use client";

import { useSyncExternalStore } from "react";

/**
 * Whether a media query matches, followed as that changes; false where nothing is shown yet.
 *
 * @example useMedia("(max-width: 39.99rem)") // on a phone
 */
export const useMedia = (query: string): boolean =>
  useSyncExternalStore(
    (onChange) => {
      const media = matchMedia(query);
      media.addEventListener("change", onChange);
      return () => media.removeEventListener("change", onChange);
    },
    () => matchMedia(query).matches,
    () => false,
  );
