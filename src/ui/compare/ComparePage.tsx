"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { CompareView } from "./CompareView";
import { usePlanId } from "../shell/usePlanId";

/** The drives of a plan in every layout, side by side. */
export function ComparePage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => (
        <PlanFrame opened={opened} place="compare">
          <CompareView
            id={opened.id}
            plan={opened.state.history.plan}
            act={(command, offersUndo) => opened.session.do(command, offersUndo)}
          />
        </PlanFrame>
      )}
    </OpenPlan>
  );
}
