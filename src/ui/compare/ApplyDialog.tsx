"use client";

import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { brokenSteps } from "@/core/commands/brokenSteps";
import { oneOrMany } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { useUnit } from "../preferences/preferences";

/** Says which planned steps a layout would make impossible, before it is applied. */
export function ApplyDialog({
  plan,
  asking,
  onApply,
  onClose,
}: {
  plan: Plan;
  asking: { command: Command; name: string };
  onApply: () => void;
  onClose: () => void;
}) {
  const [unit] = useUnit();
  const broken = brokenSteps(plan, asking.command, unit);
  const count = oneOrMany(broken.length, "One planned step", "planned steps");
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Apply ${asking.name}?`}
      about={
        `${count} could then no longer be carried out. The steps stay in the plan, and undo brings everything ` +
        "back."
      }
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" onClick={onApply}>
            Apply it
          </Button>
        </>
      }
    >
      <ol className="list-decimal space-y-2 pl-5">
        {broken.slice(0, 20).map(({ before, after }) => (
          <li key={before.step.id}>
            {before.does} <span className="text-geranium">{after.findings[0]?.message}</span>
          </li>
        ))}
        {broken.length > 20 && <li>… and {broken.length - 20} more.</li>}
      </ol>
    </Dialog>
  );
}
