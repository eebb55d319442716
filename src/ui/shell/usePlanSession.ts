"use client";

import { useEffect, useMemo, useSyncExternalStore } from "react";
import { emptyPlan } from "@/core/document/emptyPlan";
import { demoPlan } from "@/store/demoPlan";
import { PlanSession, type SessionState } from "@/store/planSession";
import { openDatabase } from "../openDatabase";
import { UNKEPT_PLAN } from "../unkeptPlan";

/**
 * Plans with something that is only on this page: another place of the plan, or the list and back, finds it as it was.
 */
const unsaved = new Map<string, PlanSession>();

/** Asks before the page is left with something on it that is nowhere else. */
function askBeforeLeaving(event: BeforeUnloadEvent): void {
  if ([...unsaved.values()].some((session) => session.hasUnsaved())) event.preventDefault();
}

/** Opens a plan for as long as the page shows it, and longer where something of it is on the page only. */
export function usePlanSession(id: string): [PlanSession, SessionState] {
  const session = useMemo(() => unsaved.get(id) ?? new PlanSession(openDatabase(), id, emptyPlan("")), [id]);
  useEffect(() => {
    window.addEventListener("beforeunload", askBeforeLeaving);
    unsaved.set(id, session);
    void session.open(id === UNKEPT_PLAN ? demoPlan : undefined);
    const lookAgain = () => document.visibilityState === "visible" && session.look();
    document.addEventListener("visibilitychange", lookAgain);
    return () => {
      document.removeEventListener("visibilitychange", lookAgain);
      if (session.hasUnsaved()) return;
      session.close();
      unsaved.delete(id);
    };
  }, [session, id]);
  const state = useSyncExternalStore(session.subscribe, session.getState, session.getState);
  return [session, state];
}
