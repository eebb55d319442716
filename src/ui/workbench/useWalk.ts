"use client";

import { useEffect, useMemo, useState } from "react";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { walkNow } from "@/core/walk/firstMoment";
import type { Walk } from "@/core/walk/moment";
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

/**
 * A plan walked through its steps. What there is to know of steps is loaded when a plan first has one; until then, and
 * for a plan without any, the box is as it is now.
 */
export function useWalk(plan: Plan, unit: UnitFamily): Walk {
  const [walker, setWalker] = useState<Walker | null>(null);
  const wanted = plan.steps.length > 0;
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    void import("@/core/walk/walkPlan").then(({ walkPlan }) => {
      if (!gone) setWalker((known) => known ?? makeWalker(walkPlan));
    });
    return () => {
      gone = true;
    };
  }, [wanted]);
  return useMemo(
    () => (walker && wanted ? walker.walk(plan, unit) : walkNow(plan, unit, today())),
    [walker, wanted, plan, unit],
  );
}
