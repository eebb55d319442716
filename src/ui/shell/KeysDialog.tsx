"use client";

import { Dialog } from "../kit/Dialog";

const KEYS: [string, string][] = [
  ["Tab", "to the next drive, column or button"],
  ["Enter or Space", "on a drive: select it; on a column: see what its failure does"],
  ["M", "on a drive: pick it up; arrow keys choose the place; M puts it down, Escape puts it back"],
  ["↑ ↓", "on a column: go through its bands"],
  ["← →", "on the staircase: the moment before, the moment after; Home and End: now, and the end"],
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
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {KEYS.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt className="font-semibold whitespace-nowrap">{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
