"use client";

import type { ComponentType } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { OpenPlan } from "./OpenPlan";
import { PlanFrame } from "./PlanFrame";
import type { PlaceId } from "./Rail";
import { usePlanId } from "./usePlanId";

/** What a place of a plan stands on. */
export interface PlaceProps {
  plan: Plan;
  /** Does a command; where `offersUndo`, a notice says what was done. Returns why it cannot be done, or null. */
  act: (command: Command, offersUndo?: boolean) => string | null;
  planHref: string;
}

/**
 * A place of a plan as a page: the plan that the address names, opened, in its frame, with a view of it.
 *
 * @example export const DataPage = planPlace("data", DataView);
 */
export function planPlace(place: PlaceId, View: ComponentType<PlaceProps>) {
  return function Place() {
    const id = usePlanId();
    return (
      <OpenPlan id={id}>
        {(opened) => (
          <PlanFrame opened={opened} place={place}>
            <View
              plan={opened.state.history.plan}
              act={(command, offersUndo) => opened.session.do(command, offersUndo)}
              planHref={`/plan/${opened.id}`}
            />
          </PlanFrame>
        )}
      </OpenPlan>
    );
  };
}
