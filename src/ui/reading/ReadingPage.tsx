"use client";

import { part } from "../kit/part";
import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { usePlanId } from "../shell/usePlanId";

// On a page of its own it would be cut into pieces that the first page has to fetch too.
const ReadingView = part(() => import("./ReadingView").then((module) => module.ReadingView), { needed: "this page" });

/** How the box is now, held against the plan. */
export function ReadingPage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => (
        <PlanFrame opened={opened} place="reading">
          <ReadingView
            plan={opened.state.history.plan}
            act={(command, offersUndo) => opened.session.do(command, offersUndo)}
            planHref={`/plan/${opened.id}`}
          />
        </PlanFrame>
      )}
    </OpenPlan>
  );
}
