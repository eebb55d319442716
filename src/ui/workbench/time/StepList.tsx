"use client";

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { stepLabel } from "@/core/steps/stepLabel";
import { Button } from "../../kit/Button";
import { say } from "../../kit/say";
import { useRoving } from "../../kit/useRoving";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { StepRow } from "./StepRow";

/** What is said of a step's handle. */
const HOW = "Space picks the step up, arrow keys move it, Space puts it down, Escape leaves it where it was.";

/** So many steps are listed at once: those about the chosen one. */
const LISTED = 60;

/** The steps in their order: choose, drag to another place, and what else can be done with each. */
export function StepList() {
  const { walk, at, goTo, act } = useWorkbench();
  const [unit] = useUnit();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const list = useRoving<HTMLOListElement>("down");
  const { moments } = walk;
  const count = moments.length - 1;
  const from = count <= LISTED ? 1 : Math.max(1, Math.min(count - LISTED + 1, at - LISTED / 2));
  const shown = moments.slice(from, from + LISTED);
  const ids = shown.map((moment) => moment.after ?? "");
  const numberOf = (id: UniqueIdentifier) => moments.findIndex(({ after }) => after === id);
  const nameOf = (id: UniqueIdentifier) => {
    const index = numberOf(id);
    const [step, before] = [moments[index]?.walked?.step, moments[index - 1]];
    return `step ${index}${step && before ? `, ${stepLabel(step, before.state.plan, unit)}` : ""}`;
  };
  const overWords = (active: UniqueIdentifier, over: UniqueIdentifier): string =>
    active === over ? "where it was" : `${numberOf(over) < numberOf(active) ? "before" : "after"} ${nameOf(over)}`;
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const to = over ? walk.plan.steps.findIndex((step) => step.id === over.id) : -1;
    if (to < 0 || !over || active.id === over.id) return;
    say(`Put ${nameOf(active.id)} ${overWords(active.id, over.id)}.`);
    act({ kind: "move-step", step: String(active.id), to });
  };
  const left = ({ active }: { active: { id: UniqueIdentifier } }) => `Left ${nameOf(active.id)} where it was.`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Picked up ${nameOf(active.id)}.`,
    // It is over its own place first of all.
    onDragOver: ({ active, over }) =>
      over ? `Moving ${nameOf(active.id)}: ${overWords(active.id, over.id)}.` : undefined,
    // A move is said by the act.
    onDragEnd: ({ active, over }) => (over && over.id !== active.id ? undefined : left({ active })),
    onDragCancel: left,
  };
  return (
    <DndContext
      id="steps"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements, screenReaderInstructions: { draggable: HOW } }}
    >
      <ol ref={list} aria-label="Steps" className="min-h-0 flex-1 overflow-y-auto" start={from}>
        <li>
          <button
            type="button"
            aria-current={at === 0 ? "step" : undefined}
            onClick={() => goTo(0)}
            className={
              "w-full rounded px-2 py-0.5 text-left text-soft hover:bg-wall aria-[current=step]:bg-wall " +
              "aria-[current=step]:font-semibold aria-[current=step]:text-ink"
            }
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
          {shown.flatMap(({ walked }, i) =>
            walked ? [<StepRow key={walked.step.id} walked={walked} index={from + i} />] : [],
          )}
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
