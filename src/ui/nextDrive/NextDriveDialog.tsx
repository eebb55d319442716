"use client";

import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { freeBays, type Placement } from "@/core/nextDrive/placements";
import { Dialog } from "../kit/Dialog";
import { NextDrivePanel } from "./NextDrivePanel";

/** The next drive, asked for at one place of the box. */
export function NextDriveDialog({
  plan,
  at,
  act,
  onClose,
}: {
  plan: Plan;
  at: Placement;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}) {
  return (
    <Dialog
      open
      onClose={onClose}
      title="What if another drive came?"
      about="Nothing in the plan changes until you put a drive on the shelf."
    >
      <NextDrivePanel plan={plan} act={act} free={freeBays(plan)} start={at} />
    </Dialog>
  );
}
