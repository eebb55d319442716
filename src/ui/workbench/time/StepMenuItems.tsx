"use client";
import { MenuItem, MenuLine } from "../../kit/Menu";
import { useWorkbench } from "../useWorkbench";
import type { Step } from "@/core/document/plan";

/** What can be done with one step. */
export function StepMenuItems({ step, index, onEdit }: { step: Step; index: number; onEdit: () => void }) {
  const { act, walk } = useWorkbench();
  const count = walk.moments.length - 1;
  return (
    <>
      <MenuItem onSelect={onEdit}>Edit…</MenuItem>
      {"how" in step && (
        <MenuItem
          onSelect={() =>
            act({ kind: "edit-step", step: step.id, changes: { how: step.how === "pulled" ? "attached" : "pulled" } })
          }
        >
          {step.how === "pulled" ? "Keep the old drive in its bay meanwhile" : "Pull the old drive first"}
        </MenuItem>
      )}
      {index > 1 && (
        <MenuItem onSelect={() => act({ kind: "edit-step", step: step.id, changes: { together: !step.together } })}>
          {step.together ? "Begin when the step before has ended" : "Begin together with the step before"}
        </MenuItem>
      )}
      <MenuItem onSelect={() => act({ kind: "edit-step", step: step.id, changes: { disabled: !step.disabled } })}>
        {step.disabled ? "Use it again" : "Skip it"}
      </MenuItem>
      <MenuItem onSelect={() => act({ kind: "duplicate-step", step: step.id })}>Repeat it</MenuItem>
      <MenuItem disabled={index === 1} onSelect={() => act({ kind: "move-step", step: step.id, to: index - 2 })}>
        Move earlier
      </MenuItem>
      <MenuItem disabled={index === count} onSelect={() => act({ kind: "move-step", step: step.id, to: index })}>
        Move later
      </MenuItem>
      <MenuLine />
      <MenuItem onSelect={() => act({ kind: "remove-steps", steps: [step.id] }, true)}>Remove</MenuItem>
    </>
  );
}
