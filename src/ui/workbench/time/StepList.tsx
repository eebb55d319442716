"use client";

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { Ellipsis, GripVertical, TriangleAlert } from "lucide-react";
import dynamic from "next/dynamic";
import { lazy, useEffect, useRef, useState } from "react";
import { Button } from "../../kit/Button";
import { MenuButton } from "../../kit/MenuButton";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { stepLabel } from "@/core/steps/stepLabel";
import type { WalkedMoment } from "@/core/walk/moment";

const StepDialog = dynamic(() => import("./StepDialog").then((module) => module.StepDialog));
const StepMenuItems = lazy(() => import("./StepMenuItems").then((module) => ({ default: module.StepMenuItems })));

/** So many steps are listed at once: those about the chosen one. */
const LISTED = 60;

const startWords = (at: number, timeZone: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", timeZone }).format(at);
const hoursShort = (hours: number) =>
  hours < 0.5
    ? "min"
    : hours < 9.95
      ? `${hours.toFixed(1)} h`
      : hours < 72
        ? `${Math.round(hours)} h`
        : `${(hours / 24).toFixed(1)} d`;

/** The steps in their order: choose, drag to another place, and what else can be done with each. */
export function StepList() {
  const { walk, at, goTo, act } = useWorkbench();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { moments } = walk;
  const count = moments.length - 1;
  const from = count <= LISTED ? 1 : Math.max(1, Math.min(count - LISTED + 1, at - LISTED / 2));
  const shown = moments.slice(from, from + LISTED);
  const ids = shown.map((moment) => moment.after ?? "");
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const to = over ? walk.plan.steps.findIndex((step) => step.id === over.id) : -1;
    if (to >= 0 && active.id !== over?.id) act({ kind: "move-step", step: String(active.id), to });
  };
  return (
    <DndContext id="steps" sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <ol aria-label="Steps" className="min-h-0 flex-1 overflow-y-auto" start={from}>
        <li>
          <button
            type="button"
            aria-current={at === 0 ? "step" : undefined}
            onClick={() => goTo(0)}
            className="w-full rounded px-2 py-0.5 text-left text-soft hover:bg-wall aria-[current=step]:bg-wall aria-[current=step]:font-semibold aria-[current=step]:text-ink"
          >
            Now
          </button>
        </li>
        {from > 1 && (
          <li className="px-2">
            <Button small look="quiet" onClick={() => goTo(Math.max(0, from - 1))}>
              {from - 1} earlier
            </Button>
          </li>
        )}
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {shown.map((moment, i) => (
            <Row key={moment.after} moment={moment} index={from + i} />
          ))}
        </SortableContext>
        {from + LISTED <= count && (
          <li className="px-2">
            <Button small look="quiet" onClick={() => goTo(Math.min(count, from + LISTED))}>
              {count - from - LISTED + 1} later
            </Button>
          </li>
        )}
      </ol>
    </DndContext>
  );
}

function Row({ moment, index }: { moment: WalkedMoment; index: number }) {
  const { walk, dates, at, goTo, act } = useWorkbench();
  const [editing, setEditing] = useState(false);
  const [unit] = useUnit();
  const { walked } = moment;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: moment.after ?? "",
  });
  const row = useRef<HTMLLIElement | null>(null);
  const current = index === at;
  useEffect(() => {
    if (current) row.current?.scrollIntoView({ block: "nearest" });
  }, [current]);
  if (!walked) return null;
  const before = walk.moments[index - 1]?.state.plan ?? walk.plan;
  const scheduled = dates.schedule?.steps[index - 1];
  const zone = dates.schedule?.calendar.timeZone ?? "UTC";
  const label = stepLabel(walked.step, before, unit);
  const worst =
    walked.findings[0]?.severity === "block"
      ? "block"
      : dates.late.has(walked.step.id)
        ? "warn"
        : walked.findings[0]?.severity;
  const trouble = worst === "block" ? "cannot be carried out" : worst === "warn" ? "has something to heed" : "";
  return (
    <li
      ref={(element) => {
        setNodeRef(element);
        row.current = element;
      }}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className={`flex items-center rounded ${current ? "bg-wall" : ""} ${isDragging ? "relative z-10 bg-raised shadow-lg" : ""}`}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move step ${index}: ${label}`}
        className="cursor-grab touch-none px-0.5 text-soft"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <button
        type="button"
        aria-current={current ? "step" : undefined}
        onClick={() => goTo(index)}
        className={`flex min-w-0 flex-1 items-center gap-1.5 rounded px-1 py-0.5 text-left hover:bg-wall ${current ? "font-semibold" : ""} ${walked.step.disabled ? "text-soft line-through" : ""}`}
      >
        <span className="w-5 shrink-0 text-right text-soft">{index}</span>
        <span className="truncate">{label}</span>
        {trouble && (
          <TriangleAlert
            size={14}
            role="img"
            aria-label={trouble}
            className={`shrink-0 ${worst === "block" ? "text-geranium" : "text-ochre-text"}`}
          />
        )}
        <span className="ml-auto shrink-0 text-[0.85rem] font-normal text-soft">
          {walked.done ? (scheduled ? startWords(scheduled.start, zone) : hoursShort(walked.cost.hours.expected)) : ""}
        </span>
      </button>
      <MenuButton
        align="end"
        trigger={
          <button
            type="button"
            aria-label={`More about step ${index}`}
            className="inline-flex size-6 items-center justify-center rounded hover:bg-ground"
          >
            <Ellipsis size={15} aria-hidden />
          </button>
        }
      >
        <StepMenuItems step={walked.step} index={index} onEdit={() => setEditing(true)} />
      </MenuButton>
      {editing && (
        <StepDialog
          step={walked.step}
          before={before}
          onClose={() => setEditing(false)}
          onSave={(changes) => act({ kind: "edit-step", step: walked.step.id, changes })}
        />
      )}
    </li>
  );
}
