"use client";

import { useRouter } from "next/navigation";
import { useDeferredValue, useEffect, type ReactNode } from "react";
import { duplicatePlan } from "@/store/planRepository";
import type { PlanSession, SessionState } from "@/store/planSession";
import { downloadPlan } from "@/exchange/exportPlan";
import { openDatabase } from "../openDatabase";
import { firstVisit, markVisited } from "../plans/visited";
import { usePlanFile } from "../plans/usePlanFile";
import { usePlanSession } from "./usePlanSession";
import { part } from "../kit/part";

const CannotOpen = part(() => import("./CannotOpen").then((module) => module.CannotOpen));
const Notices = part(() => import("../kit/Notices").then((module) => module.Notices), { said: "over" });

/** A plan that is open, and what can be done with it as a whole. */
export interface OpenedPlan {
  id: string;
  session: PlanSession;
  state: SessionState;
  onExport: () => void;
  onImport: () => void;
  onDuplicate: () => void;
}

/** Opens a plan and shows a place with it, or why it cannot. */
export function OpenPlan({ id, children }: { id: string; children: (opened: OpenedPlan) => ReactNode }) {
  const [session, state] = usePlanSession(id);
  const file = usePlanFile();
  const router = useRouter();
  // What is made of a whole plan for the first time is made in small pieces, between which the page stays awake.
  const status = useDeferredValue(state.status, "loading");
  useEffect(() => {
    if (status !== "ready") return;
    markVisited();
    // The first look has given way to the plan: no plan that is opened later shows it while it loads.
    firstVisit.shows = null;
  }, [status]);
  if (status === "loading" && (state.status === "loading" || state.status === "ready")) {
    if (firstVisit.shows) return firstVisit.shows;
    return (
      <main className="p-6 text-soft" role="status">
        Opening the plan …
      </main>
    );
  }
  if (state.status !== "ready") return <CannotOpen id={id} session={session} state={state} />;
  const duplicate = async () => {
    const copy = await duplicatePlan(openDatabase(), id);
    if (copy) router.push(`/plan/${copy}`);
  };
  const { notice } = state;
  return (
    <>
      {children({
        id,
        session,
        state,
        onExport: () => {
          const name = downloadPlan(state.history.plan);
          import("../kit/say").then(
            ({ say }) => say(`Saved as a file: ${name}.`),
            () => undefined,
          );
        },
        onImport: file.choose,
        onDuplicate: () => void duplicate(),
      })}
      {file.element}
      {notice && (
        <Notices
          notice={notice}
          act={notice.offersUndo ? { label: "Undo", onAct: () => session.undo() } : null}
          onClose={() => session.dismiss(notice.id)}
        />
      )}
    </>
  );
}
