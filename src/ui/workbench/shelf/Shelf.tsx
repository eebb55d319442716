"use client";

import { useDroppable } from "@dnd-kit/core";
import { drivesOnShelf } from "@/core/document/plan";
import { Button } from "../../kit/Button";
import { SHELF_TARGET } from "../DragArea";
import { DriveChip } from "../DriveChip";
import { useWorkbench } from "../useWorkbench";
import { AddDrives } from "./AddDrives";

/** The drives that are in no bay, owned or to be bought, and the ways to bring more in. */
export function Shelf({ onImport }: { onImport: () => void }) {
  const { plan } = useWorkbench();
  const { setNodeRef, isOver } = useDroppable({ id: SHELF_TARGET });
  const drives = drivesOnShelf(plan);
  return (
    <section ref={setNodeRef} aria-labelledby="shelf-heading" className={`flex min-h-0 flex-col gap-3 p-4 ${isOver ? "bg-wall" : ""}`}>
      <h2 id="shelf-heading" className="font-serif text-lg">
        Shelf
      </h2>
      <AddDrives />
      <Button onClick={onImport} className="w-full">
        Bring in the drives of a box…
      </Button>
      {drives.length === 0 ? (
        <p className="text-[0.93rem] text-soft">No drives on the shelf. Add the ones you own, or think of buying; taking a drive out of its bay brings it here too.</p>
      ) : (
        <ul className="-mx-1 min-h-0 flex-1 space-y-1.5 overflow-y-auto px-1 py-0.5" aria-label="Drives on the shelf">
          {drives.map((drive) => (
            <li key={drive.id}>
              <DriveChip drive={drive} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
