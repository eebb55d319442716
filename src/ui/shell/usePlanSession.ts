"use client";

import { useEffect, useMemo, useSyncExternalStore } from "react";
import { emptyPlan } from "@/core/document/emptyPlan";
import { clinic } from "@/core/document/samples/clinic";
import { PlanSession, type SessionState } from "@/store/planSession";
import { openDatabase } from "../openDatabase";
import { UNKEPT_PLAN } from "../unkeptPlan";

/** Opens a plan for as long as the page shows it. */
export function usePlanSession(id: string): [PlanSession, SessionState] {
  const session = useMemo(() => new PlanSession(openDatabase(), id, emptyPlan("")), [id]);
  useEffect(() => {
    void session.open(id === UNKEPT_PLAN ? clinic : undefined);
    return () => session.close();
  }, [session, id]);
  const state = useSyncExternalStore(session.subscribe, session.getState, session.getState);
  return [session, state];
}
