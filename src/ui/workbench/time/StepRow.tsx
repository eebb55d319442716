"use client";

import { useSortable } from "@dnd-kit/sortable";
import { Ellipsis, GripVertical, TriangleAlert } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { stepLabel } from "@/core/steps/stepLabel";
import type { WalkedStep } from "@/core/walk/moment";
import { MenuButton } from "../../kit/MenuButton";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { hoursShort, startWords } from "./whenWords";
import { part } from "../../kit/part";

const StepDialog = part(() => import("./StepDialog").then((module) => module.StepDialog), {
  said: "over",
});
const StepMenuItems = part(() => import("./StepMenuItems").then((module) => module.StepMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

interface Props {
  walked: WalkedStep;
  /** Its place in the plan, from 1. */
  index: number;
}

/** A step in the list: choose it, drag it, open what else can be done with it. */
export function StepRow({ walked, index }: Props) {
  const { walk, at, act } = useWorkbench();
  const [editing, setEditing] = useState(false);
  const [unit] = useUnit();
  const { step } = walked;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
  });
  const row = useRef<HTMLLIElement | null>(null);
  const current = index === at;
  useEffect(() => {
    if (current) row.current?.scrollIntoView({ block: "nearest" });
  }, [current]);
  const before = walk.moments[index - 1]?.state.plan ?? walk.plan;
  const label = stepLabel(step, before, unit);
  return (
    <li
      ref={(element) => {
        setNodeRef(element);
        row.current = element;
      }}
      data-carried={isDragging || undefined}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className={
        `flex items-center rounded ${current ? "bg-wall" : ""} ` +
        (isDragging ? "relative z-10 bg-raised shadow-lg" : "")
      }
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move step ${index}: ${label}`}
        className="inline-flex size-[24px] shrink-0 cursor-grab touch-none items-center justify-center text-soft"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <StepButton walked={walked} index={index} label={label} />
      <MenuButton
        align="end"
        trigger={
          <button
            type="button"
            aria-label={`More about step ${index}`}
            className="inline-flex size-[24px] items-center justify-center rounded hover:bg-ground"
          >
            <Ellipsis size={15} aria-hidden />
          </button>
        }
      >
        <StepMenuItems step={step} index={index} onEdit={() => setEditing(true)} />
      </MenuButton>
      {editing && (
        <StepDialog
          step={step}
          before={before}
          onClose={() => setEditing(false)}
          onSave={(changes) => act({ kind: "edit-step", step: step.id, changes })}
        />
      )}
    </li>
  );
}

/** The step itself: press it to see the box after it. */
function StepButton({ walked, index, label }: Props & { label: string }) {
  const { dates, at, goTo } = useWorkbench();
  const current = index === at;
  const scheduled = dates.schedule?.steps[index - 1];
  const zone = dates.schedule?.calendar.timeZone ?? "UTC";
  const when = scheduled ? startWords(scheduled.start, zone) : hoursShort(walked.cost.hours.expected);
  return (
    <button
      type="button"
      data-step={walked.step.id}
      aria-current={current ? "step" : undefined}
      onClick={() => goTo(index)}
      className={
        "flex min-w-0 flex-1 items-center gap-1.5 rounded px-1 py-0.5 text-left hover:bg-wall " +
        `${current ? "font-semibold" : ""} ${walked.step.disabled ? "text-soft line-through" : ""}`
      }
    >
      <span className="w-5 shrink-0 text-right text-soft">{index}</span>
      <span className="truncate">{label}</span>
      <Trouble walked={walked} isLate={dates.late.has(walked.step.id)} />
      <span className="ml-auto shrink-0 text-[0.85rem] font-normal text-soft">{walked.done ? when : ""}</span>
    </button>
  );
}

/** A sign that something stands against the step, or is to be heeded. */
function Trouble({ walked, isLate }: { walked: WalkedStep; isLate: boolean }) {
  const [worst] = walked.findings;
  const isBlocked = worst?.severity === "block";
  if (!isBlocked && !isLate && worst?.severity !== "warn") return null;
  return (
    <TriangleAlert
      size={14}
      role="img"
      aria-label={isBlocked ? "cannot be carried out" : "has a warning"}
      className={`shrink-0 ${isBlocked ? "text-geranium" : "text-ochre-text"}`}
    />
  );
}
