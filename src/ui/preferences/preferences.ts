"use client";

import { useSyncExternalStore } from "react";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { ASKED_KEY, STRIP_KEY, THEME_KEY, UNIT_KEY } from "./keys";

/** `system` follows the device. */
export type Theme = "light" | "dark" | "system";

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

// Where storage is blocked, choices last as long as the page.
const here = new Map<string, string>();

function read(key: string): string | null {
  try {
    return localStorage.getItem(key) ?? here.get(key) ?? null;
  } catch {
    return here.get(key) ?? null;
  }
}

function write(key: string, value: string): void {
  here.set(key, value);
  try {
    localStorage.setItem(key, value);
  } catch {
    // Kept in `here`.
  }
  listeners.forEach((listener) => listener());
}

/** The family of units that sizes are shown in, and how to change it. */
export function useUnit(): [UnitFamily, (unit: UnitFamily) => void] {
  const unit = useSyncExternalStore(
    subscribe,
    () => (read(UNIT_KEY) === "TiB" ? "TiB" : "TB"),
    () => "TB" as const,
  );
  return [unit, (next) => write(UNIT_KEY, next)];
}

/** The chosen theme, and how to change it. */
export function useTheme(): [Theme, (theme: Theme) => void] {
  const theme = useSyncExternalStore<Theme>(
    subscribe,
    () => {
      const kept = read(THEME_KEY);
      return kept === "light" || kept === "dark" ? kept : "system";
    },
    () => "system",
  );
  const choose = (next: Theme) => {
    write(THEME_KEY, next);
    const dark = next === "dark" || (next === "system" && matchMedia("(prefers-color-scheme: dark)").matches);
    document.documentElement.dataset.theme = dark ? "dark" : "light";
  };
  return [theme, choose];
}

/** Whether something that is asked only once has been asked, and how to say so. */
export function useAsked(what: string): [boolean, () => void] {
  const key = ASKED_KEY + what;
  const asked = useSyncExternalStore(
    subscribe,
    () => read(key) !== null,
    () => true,
  );
  return [asked, () => write(key, "1")];
}

/** How high the strip of time can be drawn, in pixels; it begins at the least. */
export const STRIP_HEIGHT = { least: 192, most: 560 } as const;

/** How high the strip of time is, in pixels, and how to draw it higher or lower. */
export function useStripHeight(): [number, (height: number) => void] {
  const { least, most } = STRIP_HEIGHT;
  const within = (height: number) => Math.round(Math.min(most, Math.max(least, height)));
  const height = useSyncExternalStore(
    subscribe,
    () => within(Number(read(STRIP_KEY)) || least),
    () => least,
  );
  return [height, (next) => write(STRIP_KEY, String(within(next)))];
}
