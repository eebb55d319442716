"use client";

import { Toast } from "radix-ui";
import { useEffect, useState } from "react";
import { createPortal } from "react-dom";
import { NOTICE_PLACE } from "./noticePlace";

interface Props {
  notice: { id: number | string; kind: "info" | "problem"; text: string } | null;
  act?: { label: string; onAct: () => void } | null;
  onClose: () => void;
}

/** How wide the place of the bar must be for a notice, in CSS pixels. */
const LEAST_PLACE = 220;

/** The free place of the bar, where it is wide enough; null where the notice stands at the foot of the page. */
function freePlace(): HTMLElement | null {
  const found = document.getElementById(NOTICE_PLACE);
  return found && found.clientWidth >= LEAST_PLACE ? found : null;
}

/** The same, as the window changes. */
function usePlace(): HTMLElement | null {
  const [place, setPlace] = useState(freePlace);
  useEffect(() => {
    const look = () => setPlace(freePlace());
    window.addEventListener("resize", look);
    return () => window.removeEventListener("resize", look);
  }, []);
  return place;
}

/**
 * A sentence in the bar, where it lies across nothing; on a narrow page at its foot, which is made longer for it. It
 * goes by itself; problems stay until they are closed.
 */
export function Notices({ notice, act, onClose }: Props) {
  const place = usePlace();
  const atFoot = notice !== null && place === null;
  useEffect(() => {
    document.documentElement.toggleAttribute("data-toast", atFoot);
    return () => document.documentElement.removeAttribute("data-toast");
  }, [atFoot]);
  const viewport = (
    <Toast.Viewport
      className={
        place
          ? "w-full outline-none"
          : "fixed bottom-4 left-1/2 z-50 w-[min(34rem,calc(100vw-2rem))] -translate-x-1/2 outline-none"
      }
    />
  );
  return (
    <Toast.Provider swipeDirection="down">
      {notice && (
        <Toast.Root
          key={notice.id}
          open
          onOpenChange={(open) => !open && onClose()}
          duration={notice.kind === "problem" ? 3_600_000 : 9000}
          className={
            "flex items-center gap-4 rounded-md border " +
            (place ? "px-3 py-1 text-[0.93rem] leading-tight" : "px-4 py-2.5 shadow-lg shadow-black/20") +
            " " +
            (notice.kind === "problem"
              ? "border-geranium bg-geranium-ground text-ink"
              : "border-line-strong bg-raised text-ink")
          }
        >
          <Toast.Description className="min-w-0 flex-1">{notice.text}</Toast.Description>
          {act && (
            <Toast.Action altText={act.label} asChild>
              <button
                type="button"
                onClick={act.onAct}
                className="min-h-[24px] font-semibold text-indigo underline underline-offset-4"
              >
                {act.label}
              </button>
            </Toast.Action>
          )}
          <Toast.Close
            className="inline-flex size-[24px] shrink-0 items-center justify-center text-soft hover:text-ink"
            aria-label="Close this notice"
          >
            ✕
          </Toast.Close>
        </Toast.Root>
      )}
      {place ? createPortal(viewport, place) : viewport}
    </Toast.Provider>
  );
}
