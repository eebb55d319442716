import type { Box, Plan } from "../document/plan";
import type { BoxDrives } from "./boxDrives";
import type { PrintedBox } from "./printedBox";
import type { Answers, Question } from "./question";

/** What the parts of a recognition share. */
export interface Reading {
  printed: PrintedBox;
  /** The plan that the box is held against; null for a box that is read for the first time. */
  plan: Plan | null;
  box: Box;
  answers: Answers;
  drives: BoxDrives;
  /** Filled as it goes: what could not be made out, and what is asked. */
  notMadeOut: string[];
  questions: Question[];
}
