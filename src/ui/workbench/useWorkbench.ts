"use client";

import { createContext, useContext } from "react";
import type { Command } from "@/core/document/command";
import type { LayoutId, Plan, StepBody } from "@/core/document/plan";
import type { Placement } from "@/core/nextDrive/placements";
import type { Prediction } from "@/core/prediction/predict";
import type { Dates } from "../calendar/useDates";
import type { FirstWish } from "@/core/sequences/sequence";
import type { BandRef } from "./terraces/geometry";
import type { Walk } from "@/core/walk/moment";

/** What the parts of the workbench share: the plan, what the core says of it, and what is being looked at. */
export interface WorkbenchView {
  /** The box at the chosen moment. */
  plan: Plan;
  prediction: Pick<Prediction, "pools">;
  /** The plan's steps, and the moments between them; which one is chosen, 0 for now. */
  walk: Walk;
  /** When the steps run, and what that means for the data. */
  dates: Dates;
  at: number;
  goTo: (moment: number) => void;
  /** Whether acts on the box become steps at the chosen moment. */
  planning: boolean;
  setPlanning: (planning: boolean) => void;
  /** Puts steps in at the chosen moment, and goes to the last of them. */
  insert: (steps: StepBody[]) => void;
  /** The same, once what is to be known of them has been said. */
  propose: (steps: StepBody[], title?: string) => void;
  /** The same with a ready-made sequence and what is to be bought for it. */
  insertSequence: (command: Extract<Command, { kind: "insert-sequence" }>) => void;
  /** Does a command; where `offersUndo`, a notice says what was done. */
  act: (command: Command, offersUndo?: boolean) => string | null;
  selected: ReadonlySet<string>;
  toggleSelected: (drive: string) => void;
  clearSelected: () => void;
  /** Drives that are failed to see what that would do; no part of the plan. */
  failed: ReadonlySet<string>;
  toggleFailed: (drive: string) => void;
  clearFailed: () => void;
  lit: BandRef | null;
  light: (band: BandRef | null) => void;
  /** Opens the dialog to edit a drive. */
  edit: (drive: string) => void;
  /** Opens the ready-made sequences at one of them, with what is wished of it. */
  askSequence: (first?: FirstWish) => void;
  /** Explains the layouts that the box offers for some drives, one of them first. */
  explainLayouts: (drives: readonly string[], first?: LayoutId) => void;
  /** Where Rescue is: what to do when a drive has failed. */
  rescueHref: string;
  /** Asks what another drive in a place would bring. */
  askNextDrive: (at: Placement) => void;
}

export const WorkbenchContext = createContext<WorkbenchView | null>(null);

/**
 * The workbench that a component stands in.
 *
 * @throws Error outside a workbench
 */
export function useWorkbench(): WorkbenchView {
  const view = useContext(WorkbenchContext);
  if (!view) throw new Error("This part belongs on the workbench.");
  return view;
}
