"use client";

import { useMemo } from "react";
import { poolOf, type Choice } from "@/core/compare/compare";
import type { Plan, Drive } from "@/core/document/plan";
import { SmallTerraces } from "./SmallTerraces";

/**
 * A choice as a plan of its own, its drives side by side in the order of its groups, so that the terraces can draw it.
 */
function stage(choice: Choice, drives: readonly Drive[], plan: Plan): Plan {
  const order = [...choice.groups.flatMap((group) => group.drives), ...choice.leftOut];
  const placed = order.flatMap((id, i) => {
    const drive = drives.find((each) => each.id === id);
    return drive ? [{ ...drive, place: { bay: i + 1 } }] : [];
  });
  return {
    ...plan,
    box: { ...plan.box, bays: Math.max(1, order.length) },
    drives: placed,
    pools: [poolOf(choice.groups)],
  };
}

/** The terraces of one choice, small, to the same scale for the same drives. */
export function MiniTerraces({
  choice,
  drives,
  plan,
  width,
  height,
}: {
  choice: Choice;
  drives: readonly Drive[];
  plan: Plan;
  width: number;
  height: number;
}) {
  const staged = useMemo(() => stage(choice, drives, plan), [choice, drives, plan]);
  const pools = useMemo(() => [choice.pool], [choice.pool]);
  return <SmallTerraces plan={staged} pools={pools} width={width} height={height} />;
}
