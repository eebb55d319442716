"use client";

import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import { useState, type ReactNode } from "react";

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  /** One or two sentences under the title. */
  about?: ReactNode;
  children: ReactNode;
  /** Buttons, the main act last. */
  acts?: ReactNode;
  wide?: boolean;
  /** The largest: for what is chosen on one side and shown on the other. */
  size?: "large";
  /** Whether the focus is on its first field when it opens, and not on its first button. */
  beginsInField?: boolean;
}

const FIRST_FIELD = "form :is(input, select, textarea):not([type=hidden], :disabled)";

/** A dialog over the page: Escape closes it, focus stays in it and goes back afterwards. */
export function Dialog({
  open,
  onClose,
  title,
  about,
  children,
  acts,
  wide = false,
  size,
  beginsInField = false,
}: Props) {
  // Dialogs are made when they open, so whatever has the focus now gets it back.
  const [opener] = useState(() => (typeof document === "undefined" ? null : document.activeElement));
  const giveFocusBack = (event: Event) => {
    event.preventDefault();
    if (opener instanceof HTMLElement && opener.isConnected) opener.focus();
  };
  const begin = (event: Event) => {
    const field = event.target instanceof Element ? event.target.querySelector<HTMLElement>(FIRST_FIELD) : null;
    if (!field) return;
    event.preventDefault();
    field.focus();
  };
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content
          onCloseAutoFocus={giveFocusBack}
          {...(beginsInField ? { onOpenAutoFocus: begin } : {})}
          {...(about ? {} : { "aria-describedby": undefined })}
          className={
            "fixed top-1/2 left-1/2 z-50 flex max-h-[92dvh] w-[calc(100vw-1.5rem)] -translate-x-1/2 " +
            "-translate-y-1/2 flex-col rounded-lg border border-line bg-ground text-ink shadow-2xl " +
            (size === "large" ? "max-w-5xl" : wide ? "max-w-3xl" : "max-w-lg")
          }
        >
          <header className="flex items-start gap-4 px-5 pt-4">
            <div className="min-w-0 flex-1">
              <Radix.Title className="font-serif text-xl">{title}</Radix.Title>
              {about && <Radix.Description className="mt-1 text-soft">{about}</Radix.Description>}
            </div>
            <Radix.Close
              aria-label="Close"
              className="-mr-2 inline-flex size-8 items-center justify-center rounded hover:bg-wall"
            >
              <X size={18} aria-hidden />
            </Radix.Close>
          </header>
          <div tabIndex={0} className="min-h-0 flex-1 overflow-y-auto px-5 py-4 focus-visible:outline-offset-[-2px]">
            {children}
          </div>
          {acts && <footer className="flex flex-wrap justify-end gap-2 border-t border-line px-5 py-3">{acts}</footer>}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
