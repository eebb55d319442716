"use client";

import { part } from "../kit/part";
import { useWorkbench } from "./useWorkbench";

const SelectedBar = part(() => import("./SelectedBar").then((module) => module.SelectedBar));

/** What can be done with the drives that are selected, or fail in a what-if; without any, how to begin. */
export function SelectionBar() {
  const { plan, selected, failed, planning, at } = useWorkbench();
  const isAny = failed.size > 0 || plan.drives.some(({ id }) => selected.has(id));
  return (
    <div className="flex min-h-10 items-center text-soft">
      {isAny ? (
        <SelectedBar />
      ) : planning && at > 0 ? (
        "What you do on the box here is planned as a step after this one. Go to “Now” to change it as it is."
      ) : (
        "Select drives to make a group of them. Press a column to see what the failure of that drive would do."
      )}
    </div>
  );
}
