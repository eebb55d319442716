"use client";

import {
  closestCenter,
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type CollisionDetection,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
  type UniqueIdentifier,
} from "@dnd-kit/core";
import { useState, type ReactNode } from "react";
import { type Place } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { DriveFace } from "../drives/DriveFace";
import { useWorkbench } from "./useWorkbench";
import { groupOfDrive } from "@/core/box/members";
import { driveInBay } from "@/core/box/bays";

/** The drop targets by their ids. */
export const SHELF_TARGET = "shelf";
export const bayTarget = (bay: number) => `bay-${bay}`;

const placeOf = (target: UniqueIdentifier): Place =>
  target === SHELF_TARGET ? { shelf: true } : { bay: Number(String(target).slice(4)) };
const order = (target: UniqueIdentifier) => (target === SHELF_TARGET ? 0 : Number(String(target).slice(4)));

/**
 * Arrow keys go from the shelf through the bays and back. The target is remembered here, from the drive's own place on,
 * so that quick presses are not lost while the page still measures the places or catches up with the press before.
 */
function keyboardAim(): {
  getter: KeyboardCoordinateGetter;
  collision: CollisionDetection;
  startAt: (target: UniqueIdentifier) => void;
} {
  let aimed: UniqueIdentifier | null = null;
  const getter: KeyboardCoordinateGetter = (event, { context }) => {
    const forward = event.code === "ArrowRight" || event.code === "ArrowDown";
    if (!forward && event.code !== "ArrowLeft" && event.code !== "ArrowUp") return undefined;
    event.preventDefault();
    const targets = context.droppableContainers.getEnabled().sort((a, b) => order(a.id) - order(b.id));
    const at = targets.findIndex((target) => target.id === aimed);
    const next = targets[Math.max(0, Math.min(targets.length - 1, at + (forward ? 1 : -1)))];
    if (!next) return undefined;
    aimed = next.id;
    // On a busy page a press may come before its places are measured.
    const rect = context.droppableRects.get(next.id) ?? next.node.current?.getBoundingClientRect();
    const dragged = context.collisionRect ?? rect;
    if (!rect || !dragged) return undefined;
    return { x: rect.left + rect.width / 2 - dragged.width / 2, y: rect.top + rect.height / 2 - dragged.height / 2 };
  };
  // A pointer drops where it is; the keyboard where it aims, at first where the drive stands.
  const collision: CollisionDetection = (args) =>
    args.pointerCoordinates ? pointerWithin(args) : aimed !== null ? [{ id: aimed }] : closestCenter(args);
  return { getter, collision, startAt: (target) => (aimed = target) };
}

/** Lets drives be dragged between shelf and bays, with pointer, finger or keyboard. */
export function DragArea({ children }: { children: ReactNode }) {
  const { plan, act } = useWorkbench();
  const [dragged, setDragged] = useState<string | null>(null);
  const [aim] = useState(keyboardAim);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: aim.getter,
      keyboardCodes: { start: ["KeyM"], cancel: ["Escape"], end: ["KeyM", "Enter", "Space"] },
    }),
  );
  const drive = plan.drives.find((each) => each.id === dragged) ?? null;

  const nameOf = (id: UniqueIdentifier) => {
    const found = plan.drives.find((each) => each.id === id);
    return found ? nameOfDrive(found) : "the drive";
  };
  const placeWords = (target: UniqueIdentifier | undefined, id: UniqueIdentifier) => {
    if (target === undefined) return "no place";
    if (target === SHELF_TARGET) return "the shelf";
    const bay = order(target);
    const occupant = driveInBay(plan, bay);
    return !occupant
      ? `bay ${bay}, free`
      : occupant.id === id
        ? `bay ${bay}, where it is`
        : `bay ${bay}, in place of ${nameOfDrive(occupant)}`;
  };
  const isMove = (id: UniqueIdentifier, target: UniqueIdentifier | undefined) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive !== undefined && target !== undefined && order(target) !== (bayOf(drive) ?? 0);
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Picked up ${nameOf(active.id)}.`,
    onDragOver: ({ active, over }) => `Over ${placeWords(over?.id, active.id)}.`,
    // What a drop does is told by the act itself, or by the question that it opens.
    onDragEnd: ({ active, over }) =>
      isMove(active.id, over?.id) ? undefined : `Left ${nameOf(active.id)} where it was.`,
    onDragCancel: ({ active }) => `Left ${nameOf(active.id)} where it was.`,
  };

  const onDragEnd = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const moved = plan.drives.find((each) => each.id === active.id);
    if (!over || !moved || !isMove(active.id, over.id)) return;
    const to = placeOf(over.id);
    const leaves = "shelf" in to && groupOfDrive(plan, moved.id) !== null;
    const changes = "bay" in to && driveInBay(plan, to.bay) !== null;
    act({ kind: "move-drive", drive: moved.id, to }, leaves || changes);
  };

  return (
    <DndContext
      id="drives"
      sensors={sensors}
      collisionDetection={aim.collision}
      onDragStart={({ active }) => {
        const held = plan.drives.find((each) => each.id === active.id);
        const bay = held ? bayOf(held) : null;
        aim.startAt(bay === null ? SHELF_TARGET : bayTarget(bay));
        setDragged(String(active.id));
      }}
      onDragCancel={() => setDragged(null)}
      onDragEnd={onDragEnd}
      accessibility={{
        announcements,
        // The focus goes to what the drop has led to.
        restoreFocus: false,
        screenReaderInstructions: {
          draggable:
            "Press Enter to select the drive. To move it, press M, choose a place with the arrow keys, and " +
            "press M again. Escape leaves it where it was.",
        },
      }}
    >
      {children}
      <DragOverlay dropAnimation={null}>
        {drive && (
          <div className="w-32 cursor-grabbing rounded border border-indigo bg-raised px-2 py-1 shadow-xl">
            <DriveFace drive={drive} />
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}
