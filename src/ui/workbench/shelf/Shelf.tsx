"use client";

import { useDroppable } from "@dnd-kit/core";
import { Ellipsis } from "lucide-react";
import { Button, IconButton } from "../../kit/Button";
import { MenuButton } from "../../kit/MenuButton";
import { useRoving } from "../../kit/useRoving";
import type { Drive } from "@/core/document/plan";
import { SHELF_TARGET } from "../DragArea";
import { DriveChip } from "../DriveChip";
import { useWorkbench } from "../useWorkbench";
import type { WayIn } from "../WorkbenchDialogs";
import { AddDrives } from "./AddDrives";
import { drivesOnShelf } from "@/core/box/bays";
import { part } from "../../kit/part";

// Most plans know the serials.
const SerialsHint = part(() => import("./SerialsHint").then((module) => module.SerialsHint));
const MoreWaysIn = part(() => import("./MoreWaysIn").then((module) => module.MoreWaysIn), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

/** The drives that are in no bay, owned or to be bought, and the ways to bring more in. */
export function Shelf({ onOpen }: { onOpen: (way: WayIn) => void }) {
  const { plan, at } = useWorkbench();
  // What is bought on the way has a serial only then.
  const asksSerials = at === 0 && plan.pools.length > 0 && plan.drives.some((drive) => !drive.serial && !drive.toBuy);
  const { setNodeRef, isOver } = useDroppable({ id: SHELF_TARGET });
  const drives = drivesOnShelf(plan);
  return (
    <section
      ref={setNodeRef}
      aria-labelledby="shelf-heading"
      className={`flex min-h-0 flex-col gap-3 p-4 ${isOver ? "bg-wall" : ""}`}
    >
      <h2 id="shelf-heading" className="font-serif text-lg">
        Shelf
      </h2>
      <AddDrives />
      <div className="flex gap-1">
        <Button onClick={() => onOpen("inventory")} className="min-w-0 flex-1 px-2 text-[0.9rem]">
          Bring in drives of a box…
        </Button>
        <MenuButton
          align="end"
          trigger={
            <IconButton label="More ways to bring drives in">
              <Ellipsis size={18} aria-hidden />
            </IconButton>
          }
        >
          <MoreWaysIn onOpen={onOpen} />
        </MenuButton>
      </div>
      {asksSerials && <SerialsHint onOpen={() => onOpen("serials")} />}
      {drives.length === 0 ? (
        <p className="text-[0.93rem] text-soft">
          No drives on the shelf. Add the ones you own, or think of buying; taking a drive out of its bay brings it here
          too.
        </p>
      ) : (
        <DrivesOnShelf drives={drives} />
      )}
    </section>
  );
}

function DrivesOnShelf({ drives }: { drives: readonly Drive[] }) {
  const list = useRoving<HTMLUListElement>("down");
  return (
    <ul
      ref={list}
      className="-mx-1 min-h-0 flex-1 space-y-1.5 overflow-y-auto px-1 py-0.5"
      aria-label="Drives on the shelf"
    >
      {drives.map((drive) => (
        <li key={drive.id}>
          <DriveChip drive={drive} />
        </li>
      ))}
    </ul>
  );
}
