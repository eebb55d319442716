"use client";

import { downloadPlan } from "@/exchange/exportPlan";
import type { KeptPlan } from "@/store/database";
import { duplicatePlan } from "@/store/planRepository";
import { MenuItem, MenuLine } from "../kit/Menu";
import { openDatabase } from "../openDatabase";

/** What can be done with a plan of the list. */
export function PlanMenuItems({ plan, onDelete }: { plan: KeptPlan; onDelete: () => void }) {
  return (
    <>
      <MenuItem onSelect={() => void duplicatePlan(openDatabase(), plan.id)}>Duplicate</MenuItem>
      <MenuItem onSelect={() => downloadPlan(plan.document)}>Export</MenuItem>
      <MenuLine />
      <MenuItem danger onSelect={onDelete}>
        Delete
      </MenuItem>
    </>
  );
}
