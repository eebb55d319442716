"use client";

import { useId, useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";

/** Fewer characters than this say nothing. */
const LEAST = 10;

/** The owner says in writing that a step may go on although precious data has no current backup. */
export function LiftDialog({
  message,
  onLift,
  onClose,
}: {
  message: string;
  onLift: (words: string) => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState("");
  const [asked, setAsked] = useState(false);
  const form = useId();
  const problem = useId();
  const isShort = words.trim().length < LEAST;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Go on without a backup?"
      about={message.replace(/ Back it up first, or say in writing that you go on without\.$/, "")}
      acts={
        <>
          <Button look="main" onClick={onClose}>
            Go back
          </Button>
          <Button type="submit" form={form} className="text-geranium!">
            Go on without
          </Button>
        </>
      }
    >
      <form
        id={form}
        onSubmit={(event) => {
          event.preventDefault();
          setAsked(true);
          if (isShort) return;
          onLift(words.trim());
          onClose();
        }}
      >
        <label className="block">
          Write why you go on without a backup. It stays in the plan, with today’s date, and is printed with it.
          <textarea
            rows={4}
            maxLength={500}
            value={words}
            aria-invalid={asked && isShort}
            aria-describedby={asked && isShort ? problem : undefined}
            onChange={(event) => setWords(event.target.value)}
            className="mt-2 w-full rounded border border-line-strong/70 bg-raised p-2"
          />
        </label>
        {asked && isShort && (
          <p id={problem} role="alert" className="text-geranium">
            Write a sentence, of {LEAST} characters at least.
          </p>
        )}
      </form>
    </Dialog>
  );
}
