"use client";

import { useMemo } from "react";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { walkNow } from "@/core/walk/firstMoment";
import type { Walk } from "@/core/walk/moment";
import { useLoaded, type Loaded } from "../kit/useLoaded";
import { today } from "../today";

type WalkPlan = typeof import("@/core/walk/walkPlan").walkPlan;

interface Walker {
  walk: (plan: Plan, unit: UnitFamily) => Walk;
}

/** Walks a plan, taking over from the last walk what has not changed. */
function makeWalker(walkPlan: WalkPlan): Walker {
  let last: Walk | undefined;
  return { walk: (plan, unit) => (last = walkPlan(plan, unit, last, today())) };
}

const load = () => import("@/core/walk/walkPlan").then(({ walkPlan }) => makeWalker(walkPlan));

/**
 * A plan walked through its steps. What there is to know of steps is loaded when a plan first has one; until then, and
 * for a plan without any, the box is as it is now.
 */
export function useWalk(plan: Plan, unit: UnitFamily): { walked: Walk; again: Loaded<Walker>["again"] } {
  const wanted = plan.steps.length > 0;
  const { value: walker, again } = useLoaded(load, wanted);
  const walked = useMemo(
    () => (walker && wanted ? walker.walk(plan, unit) : walkNow(plan, unit, today())),
    [walker, wanted, plan, unit],
  );
  return { walked, again };
}
