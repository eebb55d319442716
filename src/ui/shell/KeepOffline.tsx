"use client";

import { useEffect, useState } from "react";
import { Button } from "../kit/Button";

/** Asks the waiting build to take over, and loads the page anew when it has. */
function takeOver(waiting: ServiceWorker): void {
  navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
  waiting.postMessage({ type: "SKIP_WAITING" });
}

/** How long after the page what is kept for offline is begun to be loaded, in milliseconds. */
const AFTER_MS = 4000;

/**
 * Keeps the application for offline, where the browser allows it (not on plain http from another machine), and says
 * when a new version of it is there and whole.
 */
export function KeepOffline() {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    const workers = navigator.serviceWorker;
    const register = async () => {
      const registration = await workers.register("/sw.js", { scope: "/", updateViaCache: "none" });
      // The first one has nothing to replace.
      const tell = (worker: ServiceWorker | null) => {
        if (worker?.state === "installed" && workers.controller) setWaiting(worker);
      };
      tell(registration.waiting);
      registration.addEventListener("updatefound", () => {
        const coming = registration.installing;
        coming?.addEventListener("statechange", () => tell(coming));
      });
    };
    // Well after the page itself, so that it does not wait for what is kept for later. Where a browser forbids it, the
    // page works as it is.
    const begin = setTimeout(() => void register().catch(() => undefined), AFTER_MS);
    return () => clearTimeout(begin);
  }, []);
  if (!waiting) return null;
  return (
    <div
      role="status"
      className="fixed inset-x-4 bottom-4 z-40 mx-auto flex max-w-lg flex-wrap items-center gap-3 rounded border border-line-strong bg-raised p-3 shadow-lg print:hidden"
    >
      <span className="flex-1">A new version of Cortijo is here. Your plans stay as they are.</span>
      <Button small look="main" onClick={() => takeOver(waiting)}>
        Use it now
      </Button>
      <Button small onClick={() => setWaiting(null)}>
        Later
      </Button>
    </div>
  );
}
