"use client";

import { groupOfDrive } from "@/core/box/members";
import { useMemo } from "react";
import type { LayoutId } from "@/core/document/plan";
import type { Placement } from "@/core/nextDrive/placements";
import type { FirstWish } from "@/core/sequences/sequence";
import { useWorkbench } from "./useWorkbench";
import { part } from "../kit/part";

// Dialogs are loaded when they are first opened.
const DriveDialog = part(() => import("../drives/DriveDialog").then((module) => module.DriveDialog), {
  said: "over",
});
const DriveListDialog = part(() => import("../drives/DriveListDialog").then((module) => module.DriveListDialog), {
  said: "over",
});
const HealthDialog = part(() => import("../drives/HealthDialog").then((module) => module.HealthDialog), {
  said: "over",
});
const NextDriveDialog = part(() => import("../nextDrive/NextDriveDialog").then((module) => module.NextDriveDialog), {
  said: "over",
});
const InventoryDialog = part(() => import("../drives/InventoryDialog").then((module) => module.InventoryDialog), {
  said: "over",
});

const SerialsDialog = part(() => import("../drives/SerialsDialog").then((module) => module.SerialsDialog), {
  said: "over",
});
const SequencesDialog = part(() => import("../sequences/SequencesDialog").then((module) => module.SequencesDialog), {
  said: "over",
});

const DriveLayouts = part(() => import("../layouts/DriveLayouts").then((module) => module.DriveLayouts), {
  said: "over",
});

/** How drives, or what is known of them, come in. */
export type WayIn = "inventory" | "health" | "list" | "serials";

/** What is open over the workbench. */
export type OpenDialog =
  | { kind: WayIn }
  | { kind: "drive"; drive: string }
  | { kind: "next-drive"; at: Placement }
  | { kind: "sequences"; first: FirstWish | undefined }
  | { kind: "layouts"; drives: readonly string[]; first: LayoutId | undefined }
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
          members={plan.drives.filter((drive) => !drive.state && groupOfDrive(plan, drive.id) !== null)}
          onTake={(drives, missing) => {
            const refused = drives.length > 0 ? act({ kind: "add-drives", drives }) : null;
            const since = new Date().toISOString();
            if (refused !== null || missing.length === 0) return refused;
            return act({ kind: "set-drive-state", drives: missing, state: "missing", since }, true);
          }}
        />
      );
    case "health":
      return <HealthDialog drives={plan.drives} onClose={onClose} onTake={act} />;
    case "serials":
      return (
        <SerialsDialog
          drives={plan.drives}
          onClose={onClose}
          onSave={(edits) => act({ kind: "update-drives", edits, added: [] })}
        />
      );
    case "list":
      return <DriveListDialog onClose={onClose} onTake={(drives) => act({ kind: "add-drives", drives })} />;
    case "sequences":
      return <SequencesDialog first={open.first} onClose={onClose} />;
    case "layouts":
      return <DriveLayouts plan={plan} drives={open.drives} first={open.first} onClose={onClose} />;
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
