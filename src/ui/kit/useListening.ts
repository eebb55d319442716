"use client";

import { useSyncExternalStore } from "react";

const never = () => () => undefined;

/**
 * Whether the page listens yet: what the server has drawn can be seen, and pressed, before. What would be pressed in
 * vain then is better not offered.
 */
export const useListening = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
