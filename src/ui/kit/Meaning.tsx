"use client";

import { Popover } from "radix-ui";
import type { RefObject } from "react";
import { GLOSSARY } from "@/core/words/glossary";
import type { Term } from "@/core/words/terms";
import { overlayHome } from "./overlayHome";

interface Props {
  term: Term;
  open: boolean;
  onOpen: (open: boolean) => void;
  /** The word itself, which stays where it is. */
  button: RefObject<HTMLButtonElement | null>;
}

/** What a word of the trade means, beside it; Escape or a press elsewhere closes it. */
export function Meaning({ term, open, onOpen, button }: Props) {
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Anchor virtualRef={button as RefObject<HTMLButtonElement>} />
      <Popover.Portal container={open ? overlayHome() : undefined}>
        <Popover.Content
          role="note"
          aria-label={`What “${term}” means`}
          sideOffset={4}
          collisionPadding={8}
          // A press on the word itself closes it by the word's own doing.
          onInteractOutside={(event) =>
            event.target instanceof Node && button.current?.contains(event.target) && event.preventDefault()
          }
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
          className={
            "z-50 max-w-xs rounded-md border border-line-strong/60 bg-raised px-3 py-2 text-[0.93rem] " +
            "leading-snug font-normal text-ink shadow-lg shadow-black/10"
          }
        >
          <p role="status">
            <strong className="font-semibold">{term}</strong>: {GLOSSARY[term]}
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
