"use client";

import type { ReactNode } from "react";
import { planFileName } from "@/exchange/exportPlan";
import { rawPlan } from "@/store/planRepository";
import type { PlanSession, SessionState } from "@/store/planSession";
import { Button } from "../kit/Button";
import { Unloaded } from "../kit/Unloaded";
import { openDatabase } from "../openDatabase";
import { ToYourPlans } from "../plans/ToYourPlans";
import { exportFile } from "../kit/exportFile";

interface Props {
  id: string;
  session: PlanSession;
  state: SessionState;
}

/** Why a plan is not open, and what can be done about it. */
export function CannotOpen({ id, session, state: { status, damage } }: Props) {
  if (status === "unloaded")
    return (
      <Page title="This plan could not be opened yet">
        <Unloaded what="opening plans" onAgain={() => void session.open()} />
      </Page>
    );
  if (status === "deleted")
    return (
      <Page title="This plan was deleted">
        <p className="mt-4 text-soft">It is kept for 30 days after it was deleted.</p>
        <Button look="main" className="mt-4" onClick={() => void session.restore()}>
          Bring it back
        </Button>
      </Page>
    );
  if (status !== "damaged")
    return (
      <Page title="This plan is not in this browser">
        <p className="mt-4 text-soft">
          It was deleted, or it was made in another browser. Plans stay where they were made; export one there and
          import the file here.
        </p>
      </Page>
    );
  const exportAsKept = async () => {
    const text = await rawPlan(openDatabase(), id);
    if (text !== null) exportFile(planFileName("plan as kept"), "application/json", text);
  };
  return (
    <Page title={damage?.kind === "newer" ? "This plan was made by a newer Cortijo" : "This plan is damaged"}>
      <p className="mt-4 text-soft">
        {damage?.kind === "newer"
          ? "This one would lose what it does not know, and so does not open it. Update Cortijo, or export the " +
            "plan as it was kept and open it elsewhere."
          : "What this browser kept of it cannot be read as a plan any more. Your other plans are not touched. " +
            "Export it as it was kept: whoever knows the format may be able to repair it."}
      </p>
      <ul className="mt-4 space-y-1 text-[0.95rem]">
        {damage?.problems.slice(0, 5).map((problem, i) => (
          <li key={i}>
            {problem.message}{" "}
            {problem.pointer && <code className="text-[0.87rem] text-soft">at {problem.pointer}</code>}
          </li>
        ))}
      </ul>
      <Button look="main" className="mt-4" onClick={() => void exportAsKept()}>
        Export as it was kept
      </Button>
    </Page>
  );
}

function Page({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-24">
      <h1 className="font-serif text-3xl">{title}</h1>
      {children}
      <ToYourPlans />
    </main>
  );
}
