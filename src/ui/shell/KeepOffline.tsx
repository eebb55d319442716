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
  // The page gives it room above (`--notice` in globals.css): it lies across nothing.
  useEffect(() => {
    document.documentElement.toggleAttribute("data-notice", waiting !== null);
  }, [waiting]);
  return (
    <div role="status" className="print:hidden">
      {waiting && (
        <div
          className={
            "flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-line-strong bg-raised px-4 py-2 " +
            "desk:h-(--notice) desk:py-0"
          }
        >
          <span className="flex-1 basis-60">A new version of Cortijo is here. Your plans stay as they are.</span>
          <span className="flex gap-3">
            <Button small look="main" onClick={() => takeOver(waiting)}>
              Use it now
            </Button>
            <Button small onClick={() => setWaiting(null)}>
              Later
            </Button>
          </span>
        </div>
      )}
    </div>
  );
}
