"use client";

import { writePlan } from "@/core/document/writePlan";
import { planFileName } from "@/exchange/exportPlan";
import { duplicatePlan, rawPlan, type ListedPlan } from "@/store/planRepository";
import { MenuItem, MenuLine } from "../kit/Menu";
import { openDatabase } from "../openDatabase";
import { exportFile } from "../kit/exportFile";

/** What can be done with a plan of the list. */
export function PlanMenuItems({ plan, onDelete }: { plan: ListedPlan; onDelete: () => void }) {
  const { plan: document } = plan;
  const exportAsKept = async () => {
    const text = await rawPlan(openDatabase(), plan.id);
    if (text !== null) exportFile(planFileName(`${plan.name} as kept`), "application/json", text);
  };
  return (
    <>
      {document ? (
        <>
          <MenuItem onSelect={() => void duplicatePlan(openDatabase(), plan.id)}>Duplicate</MenuItem>
          <MenuItem onSelect={() => exportFile(planFileName(document.name), "application/json", writePlan(document))}>
            Export
          </MenuItem>
        </>
      ) : (
        <MenuItem onSelect={() => void exportAsKept()}>Export as it was kept</MenuItem>
      )}
      <MenuLine />
      <MenuItem danger onSelect={onDelete}>
        Delete
      </MenuItem>
    </>
  );
}
