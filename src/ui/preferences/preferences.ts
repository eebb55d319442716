"use client";

import { useSyncExternalStore } from "react";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { THEME_KEY, UNIT_KEY } from "./keys";

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
