"use client";

import { useCallback } from "react";
import { driveInBay } from "@/core/box/bays";
import { groupOfDrive, isFree } from "@/core/box/members";
import type { Command } from "@/core/document/command";
import type { Plan, StepBody } from "@/core/document/plan";
import type { Act } from "@/core/steps/propose";
import type { Walk } from "@/core/walk/moment";
import { placeAt } from "@/core/walk/placeAt";
import type { PlanSession } from "@/store/planSession";
import { NOT_LOADED } from "../kit/notLoaded";
import { plannedAs } from "./plannedAs";
import type { WorkbenchView } from "./useWorkbench";

interface Setting {
  session: PlanSession;
  walked: Walk;
  at: number;
  /** The box at that moment. */
  plan: Plan;
  /** Whether acts on the box become steps. */
  planning: boolean;
  selected: ReadonlySet<string>;
  /** Goes to the moment after a step. */
  choose: (step: string | null) => void;
  /** Asks about an act that is to become steps. */
  ask: (pending: { act: Act; at: number }) => void;
}

/** Whether steps that mend something go in at the chosen moment, and not before or after another. */
const isPlacedAt = (command: Extract<Command, { kind: "insert-steps" }>, place: ReturnType<typeof placeAt>): boolean =>
  command.before === place.before && command.after === place.after;

/** Whether a drive is put in the place of one that is gone: it has to be filled, which takes a step. */
function fillsGap(command: Command, plan: Plan): boolean {
  if (command.kind !== "move-drive" || !("bay" in command.to)) return false;
  const occupant = driveInBay(plan, command.to.bay);
  return occupant?.state !== undefined && groupOfDrive(plan, occupant.id) !== null && isFree(plan, command.drive);
}

/** What the hands do on the workbench: at once on the box as it is, or as steps at the chosen moment. */
export function useActs(setting: Setting): Pick<WorkbenchView, "act" | "insert" | "propose" | "insertSequence"> {
  const { session, walked, at, plan, planning, selected, choose, ask } = setting;
  const goToLast = useCallback(
    (count: number) => choose(session.getState().history.plan.steps[at + count - 1]?.id ?? null),
    [session, at, choose],
  );
  const insert = useCallback(
    (steps: StepBody[]) => {
      if (!session.do({ kind: "insert-steps", ...placeAt(walked, at), steps })) goToLast(steps.length);
    },
    [session, at, walked, goToLast],
  );
  // What is to be known of steps is said before they are planned; those of which nothing is are planned at once.
  const propose = useCallback(
    (steps: StepBody[], title?: string) => {
      const asked = ({ stepsToAsk }: typeof import("./time/stepsToAsk")) => {
        const act = stepsToAsk(walked, at, plan, steps, title);
        if (act) ask({ act, at });
        else insert(steps);
      };
      import("./time/stepsToAsk").then(asked, () => session.say(NOT_LOADED));
    },
    [session, walked, at, plan, insert, ask],
  );
  const insertSequence = useCallback(
    (command: Extract<Command, { kind: "insert-sequence" }>) => {
      if (!session.do(command, true)) goToLast(command.steps.length);
    },
    [session, goToLast],
  );
  const act = useCallback(
    (command: Command, offersUndo = false): string | null => {
      if (command.kind === "insert-steps" && isPlacedAt(command, placeAt(walked, at))) {
        propose(command.steps);
        return null;
      }
      if (!planning && !fillsGap(command, plan)) return session.do(command, offersUndo);
      const planned = plannedAs(command, { ...plan, steps: walked.plan.steps }, selected);
      if (planned.kind === "as-it-is") return session.do(command, offersUndo);
      if (planned.kind === "no-step") session.say(planned.reason);
      else if (planned.kind === "act") ask({ act: planned.act, at });
      else propose(planned.steps);
      return planned.kind === "no-step" ? planned.reason : null;
    },
    [session, planning, plan, walked, selected, propose, ask, at],
  );
  return { act, insert, propose, insertSequence };
}
