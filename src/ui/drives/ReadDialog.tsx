"use client";

import { useState, type ReactNode } from "react";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { FromPracticeBox } from "../practice/FromPracticeBox";
import { TextActs } from "./TextActs";
import { TextSource } from "./TextSource";

interface Props<T> {
  title: string;
  /** What to do to get the text, and what to do with what was found in it. */
  aboutSource: string;
  aboutFound: string;
  source: { example: string; label: string; placeholder: string; most: number };
  /** Which of what a practice box prints it is. */
  printed: "devices" | "health";
  read: (text: string) => { ok: true; found: T } | { ok: false; message: string };
  /** Shows what was found. */
  children: (found: T) => ReactNode;
  /** The words of the main act on what was found, and whether there is something to take. */
  takeLabel: string;
  canTake: boolean;
  /** Takes what was found; returns why it cannot be taken, or null. */
  onTake: (found: T) => string | null;
  onClose: () => void;
}

/** A dialog in two turns: bring a text, then look at what was found in it and take it. What was typed stays. */
export function ReadDialog<T>({
  title,
  aboutSource,
  aboutFound,
  source,
  printed,
  read,
  children,
  takeLabel,
  canTake,
  onTake,
  onClose,
}: Props<T>) {
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [found, setFound] = useState<T | null>(null);
  const readText = (given: string) => {
    const result = read(given);
    setTrouble(result.ok ? null : result.message);
    if (result.ok) setFound(result.found);
  };
  const take = () => {
    if (found === null) return;
    const refused = onTake(found);
    setTrouble(refused);
    if (!refused) onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title}
      about={found === null ? aboutSource : aboutFound}
      acts={
        found === null ? (
          <TextActs text={text} label="Read" onTake={readText} onClose={onClose} />
        ) : (
          <>
            <Button onClick={() => setFound(null)}>Back</Button>
            <Button look="main" disabled={!canTake} onClick={take}>
              {takeLabel}
            </Button>
          </>
        )
      }
    >
      {found === null ? (
        <>
          <TextSource
            {...source}
            accept=".json,.txt,application/json,text/plain"
            value={text}
            onChange={(next) => {
              setText(next);
              setTrouble(null);
            }}
            onFiles={readText}
            onTrouble={setTrouble}
          />
          <FromPracticeBox
            of={printed}
            text={text}
            onText={(next) => {
              setText(next);
              setTrouble(null);
            }}
          />
        </>
      ) : (
        children(found)
      )}
      {trouble && (
        <p role="alert" className="mt-3 text-geranium">
          {trouble}
        </p>
      )}
    </Dialog>
  );
}
