"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { DataView } from "./DataView";
import { usePlanId } from "../shell/usePlanId";

/** What is stored, how it grows, where else it is kept, and what each mishap would take. */
export function DataPage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => (
        <PlanFrame opened={opened} place="data">
          <DataView
            plan={opened.state.history.plan}
            act={(command, offersUndo) => opened.session.do(command, offersUndo)}
            planHref={`/plan/${opened.id}`}
          />
        </PlanFrame>
      )}
    </OpenPlan>
  );
}
