"use client";

import { Toast } from "radix-ui";

interface Props {
  notice: { id: number | string; kind: "info" | "problem"; text: string } | null;
  act?: { label: string; onAct: () => void } | null;
  onClose: () => void;
}

/** A sentence at the foot of the page that goes by itself; problems stay until they are closed. */
export function Notices({ notice, act, onClose }: Props) {
  return (
    <Toast.Provider swipeDirection="down">
      {notice && (
        <Toast.Root
          key={notice.id}
          open
          onOpenChange={(open) => !open && onClose()}
          duration={notice.kind === "problem" ? 3_600_000 : 9000}
          className={`flex items-center gap-4 rounded-md border px-4 py-2.5 shadow-lg shadow-black/20 ${notice.kind === "problem" ? "border-geranium bg-geranium-ground text-ink" : "border-line-strong bg-raised text-ink"}`}
        >
          <Toast.Description className="flex-1">{notice.text}</Toast.Description>
          {act && (
            <Toast.Action altText={act.label} asChild>
              <button
                type="button"
                onClick={act.onAct}
                className="font-semibold text-indigo underline underline-offset-4"
              >
                {act.label}
              </button>
            </Toast.Action>
          )}
          <Toast.Close className="text-soft hover:text-ink" aria-label="Close this notice">
            ✕
          </Toast.Close>
        </Toast.Root>
      )}
      <Toast.Viewport className="fixed bottom-4 left-1/2 z-50 w-[min(34rem,calc(100vw-2rem))] -translate-x-1/2 outline-none" />
    </Toast.Provider>
  );
}
