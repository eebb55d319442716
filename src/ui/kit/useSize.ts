"use client";

import { useLayoutEffect, useState, type RefCallback } from "react";

/** Follows the size of an element, in CSS pixels; null before it is measured. */
export function useSize<T extends HTMLElement>(): [RefCallback<T>, { width: number; height: number } | null] {
  const [element, setElement] = useState<T | null>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useLayoutEffect(() => {
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (!entry) return;
      const { width, height } = entry.contentRect;
      setSize((old) =>
        old && Math.abs(old.width - width) < 0.5 && Math.abs(old.height - height) < 0.5 ? old : { width, height },
      );
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [element]);
  return [setElement, size];
}
