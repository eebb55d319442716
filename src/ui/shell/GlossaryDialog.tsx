"use client";

import { GLOSSARY } from "@/core/words/glossary";
import { WordList } from "../kit/WordList";
import { Dialog } from "../kit/Dialog";

/** The words of the trade, all of them, for whoever looks one up. */
export function GlossaryDialog({ onClose }: { onClose: () => void }) {
  const words = Object.entries(GLOSSARY).sort(([a], [b]) => a.localeCompare(b, "en", { sensitivity: "base" }));
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="What the words mean"
      about="Words that are underlined with dots say what they mean where they stand, too."
    >
      <WordList words={words} />
    </Dialog>
  );
}
