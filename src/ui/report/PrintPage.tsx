"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { ReportPage } from "./ReportPage";
import { usePlanId } from "../shell/usePlanId";

/** The plan as a document to hold: to be printed, or kept as a PDF. */
export function PrintPage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => (
        <PlanFrame opened={opened} place="print">
          <ReportPage plan={opened.state.history.plan} planHref={`/plan/${opened.id}`} />
        </PlanFrame>
      )}
    </OpenPlan>
  );
}
