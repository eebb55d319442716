"use client";

import type { Problem } from "@/core/document/problem";
import { Button } from "./Button";
import { Dialog } from "./Dialog";

/** Why a file was refused: each problem with its place in the file. Nothing was changed. */
export function ProblemsDialog({
  title,
  about = "Nothing has been changed.",
  problems,
  onClose,
}: {
  title: string;
  about?: string;
  problems: readonly Problem[];
  onClose: () => void;
}) {
  return (
    <Dialog
      open
      onClose={onClose}
      title={title}
      about={about}
      acts={
        <Button look="main" onClick={onClose}>
          Close
        </Button>
      }
    >
      <ul className="space-y-3">
        {problems.map((problem, i) => (
          <li key={i}>
            {problem.message}
            {problem.pointer && (
              <code className="mt-0.5 block text-[0.87rem] break-all text-soft">at {problem.pointer}</code>
            )}
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
