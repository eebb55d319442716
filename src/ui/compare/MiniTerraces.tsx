"use client";

import { useMemo } from "react";
import type { Plan, Drive } from "@/core/document/plan";
import { stage, type Outlined } from "../layouts/stage";
import { SmallTerraces } from "./SmallTerraces";

/** The terraces of one choice, small, to the same scale for the same drives. */
export function MiniTerraces({
  choice,
  drives,
  plan,
  width,
  height,
}: {
  choice: Outlined;
  drives: readonly Drive[];
  plan: Plan;
  width: number;
  height: number;
}) {
  const staged = useMemo(() => stage(choice, drives, plan), [choice, drives, plan]);
  const pools = useMemo(() => [choice.pool], [choice.pool]);
  return <SmallTerraces plan={staged} pools={pools} width={width} height={height} />;
}
