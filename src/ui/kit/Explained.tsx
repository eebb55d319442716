"use client";

import { Suspense, useMemo, useRef, useState } from "react";
import { termsIn, type Term } from "@/core/words/terms";
import { part } from "./part";

// What a word means is loaded when somebody asks.
const Meaning = part(() => import("./Meaning").then((module) => module.Meaning), {
  needed: "this explanation",
  said: "over",
  meanwhile: "whatever is around",
});

/** A sentence whose words of the trade say what they mean: by pointer, touch and key. */
export function Explained({ text }: { text: string }) {
  const pieces = useMemo(() => termsIn(text), [text]);
  return pieces.map((piece, i) =>
    typeof piece === "string" ? piece : <TermButton key={i} term={piece.term} word={piece.word} />,
  );
}

function TermButton({ term, word }: { term: Term; word: string }) {
  const [asked, setAsked] = useState(false);
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const ask = (next: boolean) => {
    setAsked(true);
    setOpen(next);
  };
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-expanded={open}
        className="cursor-help underline decoration-dotted decoration-1 underline-offset-[3px] hover:decoration-solid"
        // The mouse has opened it by coming, and closes it by going.
        onClick={(event) => ask((event.nativeEvent as PointerEvent).pointerType === "mouse" || !open)}
        onPointerEnter={(event) => event.pointerType === "mouse" && ask(true)}
        onPointerLeave={(event) => event.pointerType === "mouse" && setOpen(false)}
      >
        {word}
      </button>
      {asked && (
        <Suspense fallback={null}>
          <Meaning term={term} open={open} onOpen={setOpen} button={button} />
        </Suspense>
      )}
    </>
  );
}
