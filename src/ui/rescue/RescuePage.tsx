"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { usePlanId } from "../shell/usePlanId";
import { part } from "../kit/part";

// On a page of its own it would be cut into pieces that the first page has to fetch too.
const RescueView = part(() => import("./RescueView").then((module) => module.RescueView), { needed: "this page" });

/** What to do now: for a pool that lacks drives, one thing at a time. */
export function RescuePage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => (
        <PlanFrame opened={opened} place="rescue">
          <RescueView
            plan={opened.state.history.plan}
            act={(command, offersUndo) => opened.session.do(command, offersUndo)}
            planHref={`/plan/${opened.id}`}
          />
        </PlanFrame>
      )}
    </OpenPlan>
  );
}
