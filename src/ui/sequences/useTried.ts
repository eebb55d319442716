"use client";

import type { Remote } from "comlink";
import { useCallback } from "react";
import type { Spread } from "@/core/chance/inputs";
import type { SequenceId, Wish } from "@/core/sequences/sequence";
import type { Place, TriedSequence } from "@/core/sequences/tried";
import type { Work } from "@/workers/work.worker";
import { useJob } from "../kit/useJob";
import type { PlanCalendar } from "@/core/document/plan";

/** A sequence as it was last worked out. */
export interface Trial {
  result: TriedSequence | null;
  /** How likely its steps cost something, of 1. */
  chance: Spread | null;
  /** Whether that is for the wish as it is now. */
  isFresh: boolean;
  trouble: string | null;
}

/** Works a ready-made sequence out in a worker: weighing every order of many drives takes longer than a frame. */
export function useTried(
  id: SequenceId | null,
  wish: Wish | null,
  { document, at, today, walked }: Place,
  calendar: PlanCalendar,
): Trial {
  const { family } = walked;
  const start = useCallback(
    (work: Remote<Work>) => {
      if (id === null || wish === null) throw new RangeError("There is nothing to work out.");
      return work.trySequence(id, wish, { document, at, today, family }, calendar);
    },
    [id, wish, document, at, today, family, calendar],
  );
  const job = useJob(id !== null && wish !== null ? start : null);
  const shown = job.result?.id === id ? job.result : null;
  // The wish comes back as a copy.
  return {
    result: shown?.result ?? null,
    chance: shown?.chance ?? null,
    isFresh: shown !== null && JSON.stringify(shown.wish) === JSON.stringify(wish),
    trouble: job.trouble,
  };
}
