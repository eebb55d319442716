"use client";

import { useMemo } from "react";
import type { Placement } from "@/core/nextDrive/placements";
import type { FirstWish } from "@/core/sequences/sequence";
import { useWorkbench } from "./useWorkbench";
import { part } from "../kit/part";

// Dialogs are loaded when they are first opened.
const DriveDialog = part(() => import("../drives/DriveDialog").then((module) => module.DriveDialog), {
  needed: "this",
  said: "over",
});
const DriveListDialog = part(() => import("../drives/DriveListDialog").then((module) => module.DriveListDialog), {
  needed: "this",
  said: "over",
});
const HealthDialog = part(() => import("../drives/HealthDialog").then((module) => module.HealthDialog), {
  needed: "this",
  said: "over",
});
const NextDriveDialog = part(() => import("../nextDrive/NextDriveDialog").then((module) => module.NextDriveDialog), {
  needed: "this",
  said: "over",
});
const InventoryDialog = part(() => import("../drives/InventoryDialog").then((module) => module.InventoryDialog), {
  needed: "this",
  said: "over",
});

const SequencesDialog = part(() => import("../sequences/SequencesDialog").then((module) => module.SequencesDialog), {
  needed: "this",
  said: "over",
});

/** How drives, or what is known of them, come in. */
export type WayIn = "inventory" | "health" | "list";

/** What is open over the workbench. */
export type OpenDialog =
  | { kind: WayIn }
  | { kind: "drive"; drive: string }
  | { kind: "next-drive"; at: Placement }
  | { kind: "sequences"; first: FirstWish | undefined }
  | null;

export function WorkbenchDialogs({ open, onClose }: { open: OpenDialog; onClose: () => void }) {
  const { plan, act } = useWorkbench();
  const knownSerials = useMemo(
    () => new Set(plan.drives.flatMap((drive) => drive.serial?.toLowerCase() ?? [])),
    [plan.drives],
  );
  switch (open?.kind) {
    case undefined:
      return null;
    case "inventory":
      return (
        <InventoryDialog
          knownSerials={knownSerials}
          onClose={onClose}
          onTake={(drives) => act({ kind: "add-drives", drives })}
        />
      );
    case "health":
      return <HealthDialog drives={plan.drives} onClose={onClose} onTake={act} />;
    case "list":
      return <DriveListDialog onClose={onClose} onTake={(drives) => act({ kind: "add-drives", drives })} />;
    case "sequences":
      return <SequencesDialog first={open.first} onClose={onClose} />;
    case "next-drive":
      return <NextDriveDialog plan={plan} at={open.at} act={act} onClose={onClose} />;
    case "drive": {
      const drive = plan.drives.find((each) => each.id === open.drive);
      return drive ? (
        <DriveDialog
          key={drive.id}
          drive={drive}
          onClose={onClose}
          onSave={(changes) => act({ kind: "edit-drive", drive: drive.id, changes })}
        />
      ) : null;
    }
  }
}
