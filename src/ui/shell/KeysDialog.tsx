"use client";

import { WordList } from "../kit/WordList";
import { Dialog } from "../kit/Dialog";

const KEYS: [string, string][] = [
  ["Tab", "to the next list or button; first of all past the head of the page"],
  ["← → ↑ ↓", "within a list of drives, bays or steps: to the next one, and to its menu; Home and End: to its ends"],
  ["← →", "on a column: to the next one"],
  ["Enter or Space", "on a drive: select it; on a column: see what its failure does"],
  ["G", "make a group of the selected drives: opens the layouts"],
  ["M", "on a drive: pick it up; arrow keys choose the place; M puts it down, Escape puts it back"],
  ["↑ ↓", "on a column: go through its bands"],
  ["← →", "on the staircase: the moment before, the moment after; Home and End: now, and the end"],
  ["↑ ↓", "on the upper edge of the steps: more or less of them in sight"],
  ["Space", "on a step's handle: pick it up; arrow keys move it; Space puts it down"],
  ["Escape", "clear the selection and the what-if"],
  ["Ctrl Z", "undo"],
  ["Ctrl Shift Z or Ctrl Y", "redo"],
  ["?", "this list"],
];

/** The keys of the workbench. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} title="Keys">
      <WordList words={KEYS} />
    </Dialog>
  );
}
