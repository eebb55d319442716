"use client";

import { useCallback, useEffect, useMemo, useState } from "react";
import type { Plan, Step } from "@/core/document/plan";
import type { Mishap } from "@/core/simulator/mishaps";
import { addAct, followPractice, keepAhead } from "@/store/practiceBoxes";
import type { KeptPractice } from "@/store/database";
import { aheadOf, boxNow, putAhead } from "../boxClock";
import { useAfter } from "../kit/useAfter";
import { useLoaded } from "../kit/useLoaded";
import { openDatabase } from "../openDatabase";
import { usePlanId } from "../shell/usePlanId";
import type { OpenPractice } from "./openPractice";

const HOUR = 3_600_000;

/** After how long the browser's database is not waited for any more, in milliseconds. */
const LATE_MS = 3000;

/** What is done with acts alone takes less, in hours. */
const A_FEW_MINUTES = 1;

/** The practice box of the plan that is shown. */
export interface PracticeBox {
  open: OpenPractice;
  /**
   * Lets it begin a step of the plan; why it refuses, or null.
   *
   * @param atOnce whether the step is done with the owner's acts, so that the minutes for these pass
   */
  begin: (step: Step, label: string, plan: Plan, atOnce: boolean) => string | null;
  /** Why a step of the plan cannot be recorded as ended; null where it has ended on the box. */
  notEnded: (step: string) => string | null;
  befall: (mishap: Mishap) => void;
  pull: (drive: string) => void;
  seat: (drive: string) => void;
  /** Puts its clock ahead. */
  letPass: (hours: number) => void;
  /** Whether something of it is on this page only, since the browser could not keep it. */
  unkept: boolean;
}

const load = () => import("./openPractice").then((module) => module.OpenPractice);

/** Boxes that are open on this page, by their plans: a further view of one is a view of the same. */
const opened = new Map<string, OpenPractice>();

function openOf(kept: KeptPractice, Open: typeof OpenPractice): OpenPractice | null {
  const known = opened.get(kept.id);
  if (known?.isOf(kept)) return known;
  try {
    const made = new Open(kept);
    // What cannot be shown is as good as damaged: it takes nothing else on the page with it.
    made.view(kept.since, "TB");
    opened.set(kept.id, made);
    return made;
  } catch {
    return null;
  }
}

/** What is the matter with a practice box that is not to be had; one that could not be loaded can be tried again. */
export type NoPractice = "none" | "loading" | "broken" | { again: () => void };

/** Whether a practice box is there. */
export const isThere = (practice: PracticeBox | NoPractice): practice is PracticeBox =>
  typeof practice === "object" && "open" in practice;

/** The practice box of the plan that is shown, followed as it changes; or why there is none. */
export function usePractice(): PracticeBox | NoPractice {
  const id = usePlanId();
  const [kept, setKept] = useState<KeptPractice | null | undefined>(undefined);
  const { value: Open, again } = useLoaded(load, Boolean(kept));
  useEffect(
    () =>
      followPractice(openDatabase(), id, (next) => {
        // Until it is set up anew its clock only goes on, here perhaps further than what has been kept yet.
        if (next) putAhead(id, opened.get(id)?.isOf(next) ? Math.max(aheadOf(id), next.ahead) : next.ahead);
        else opened.delete(id);
        setKept(next);
      }),
    [id],
  );
  const open = useMemo(() => (kept && Open ? openOf(kept, Open) : null), [kept, Open]);
  const [unkept, setUnkept] = useState(false);
  const keep = useCallback(
    (done: ReturnType<OpenPractice["befall"]> | null): string | null => {
      if (!done) return null;
      addAct(openDatabase(), id, done.act, { plan: done.plan, ahead: aheadOf(id) }).catch(() => setUnkept(true));
      return done.refused;
    },
    [id],
  );
  const letPass = useCallback(
    (hours: number) => {
      const ahead = aheadOf(id) + hours * HOUR;
      putAhead(id, ahead);
      keepAhead(openDatabase(), id, ahead).catch(() => setUnkept(true));
    },
    [id],
  );
  // A browser that does not answer at all keeps none.
  const isLate = useAfter(LATE_MS);
  return useMemo(() => {
    if (kept === null || (kept === undefined && isLate)) return "none";
    if (kept && again) return { again };
    if (kept && Open && !open) return "broken";
    if (!kept || !open) return "loading";
    return {
      open,
      begin: (step, label, plan, atOnce) => {
        const recorded = (plan.history ?? []).filter((each) => each.step === step.id && each.outcome === "done").length;
        const refused = keep(open.begin(step, label, plan, recorded, boxNow()));
        const left = open.left(boxNow());
        if (refused === null && atOnce && left !== null && left < A_FEW_MINUTES) letPass(left);
        return refused;
      },
      notEnded: (step) => open.notEnded(step, boxNow()),
      befall: (mishap) => void keep(open.befall(mishap, boxNow())),
      pull: (drive) => void keep(open.pull(drive, boxNow())),
      seat: (drive) => void keep(open.seat(drive, boxNow())),
      letPass,
      unkept,
    };
  }, [kept, open, Open, again, isLate, keep, letPass, unkept]);
}
