"use client";

import { useSyncExternalStore } from "react";
import type { RuleSetId } from "@/core/document/plan";
import { ruleSets } from "@/core/rules/ruleSets";
import { DRAFT_KEY } from "../preferences/keys";

/** What somebody has typed and chosen so far; `bays` null while they are guessed from the drives. */
export interface Draft {
  text: string;
  bays: number | null;
  set: RuleSetId;
}

const EMPTY: Draft = { text: "", bays: null, set: "classic-raid" };
/** Longer texts are output or files, which are still where they came from. */
const MOST_KEPT = 20_000;

/** What was kept, or an empty draft where nothing was, or it is damaged. */
function kept(): Draft {
  try {
    const { text, bays, set } = JSON.parse(sessionStorage.getItem(DRAFT_KEY) ?? "{}") as Partial<
      Record<string, unknown>
    >;
    const known = ruleSets.find(({ id }) => id === set);
    return {
      text: typeof text === "string" ? text : "",
      bays: typeof bays === "number" && Number.isInteger(bays) ? bays : null,
      set: known?.id ?? EMPTY.set,
    };
  } catch {
    return EMPTY;
  }
}

function keep(draft: Draft | null): void {
  try {
    if (draft === null) sessionStorage.removeItem(DRAFT_KEY);
    else if (draft.text.length <= MOST_KEPT) sessionStorage.setItem(DRAFT_KEY, JSON.stringify(draft));
  } catch {
    // Where the browser keeps nothing, the draft lasts as long as the page.
  }
}

const listeners = new Set<() => void>();
let draft: Draft | null = null;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function put(next: Draft | null): void {
  draft = next ?? EMPTY;
  keep(next);
  listeners.forEach((listener) => listener());
}

/** The draft, which a reload finds as it was; how to change it; and how to forget it, once a plan is made of it. */
export function useDraft(): [Draft, (change: Partial<Draft>) => void, () => void] {
  const now = useSyncExternalStore(
    subscribe,
    () => (draft ??= kept()),
    () => EMPTY,
  );
  return [now, (change) => put({ ...now, ...change }), () => put(null)];
}
