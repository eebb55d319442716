"use client";

import { useState } from "react";
import type { Plan } from "@/core/document/plan";
import { keepPractice } from "@/store/practiceBoxes";
import { Button } from "../kit/Button";
import { openDatabase } from "../openDatabase";
import { usePlanId } from "../shell/usePlanId";
import { usePractice } from "./usePractice";

/** That the browser keeps nothing, and so no practice box. */
export const NOTHING_KEPT =
  "The browser keeps nothing here (a private window, or storage that is full or blocked), so there can be no " +
  "practice box.";

/** For which plan a practice box has just been asked: its panel takes the focus when it comes. */
export const asked: { plan: string | null } = { plan: null };

/** For whoever has no box at hand: one that is simulated, set up as the plan has its box now. */
export function OfferPractice({ plan }: { plan: Plan }) {
  const id = usePlanId();
  const [trouble, setTrouble] = useState(false);
  if (usePractice() !== "none" || plan.pools.length === 0) return null;
  return (
    <div className="border-t border-line pt-3">
      <p>
        No box at hand, or not yet? Try the plan on a practice box: it is simulated, set up as the plan has the box now,
        and nothing can be lost on it. It can be read here, carried out, broken and rescued like a real one.
      </p>
      <Button
        className="mt-2"
        onClick={() => {
          void keepPractice(openDatabase(), id, plan).catch(() => setTrouble(true));
          asked.plan = id;
        }}
      >
        Set up a practice box
      </Button>
      {trouble && (
        <p role="alert" className="mt-1 text-geranium">
          {NOTHING_KEPT}
        </p>
      )}
    </div>
  );
}
