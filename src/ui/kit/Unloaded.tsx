"use client";

import { Button } from "./Button";

interface Props {
  /** What could not be loaded, or what it is needed for. */
  what: string;
  said?: "in-place" | "over";
  onAgain: () => void;
}

/** That a part of Cortijo could not be loaded, in its place or over the page, with a way to try again. */
export function Unloaded({ what, said = "in-place", onAgain }: Props) {
  const over = "fixed inset-x-4 bottom-4 z-50 mx-auto max-w-lg rounded border border-geranium bg-raised shadow-lg";
  return (
    <div role="alert" className={`max-w-lg space-y-2 p-3 text-[0.95rem] ${said === "over" ? over : ""}`}>
      <p>
        What is needed for {what} could not be loaded: Cortijo’s server cannot be reached, or has been updated. Nothing
        of your plan is lost.
      </p>
      <span className="flex flex-wrap gap-2">
        <Button small look="main" autoFocus onClick={onAgain}>
          Try again
        </Button>
        <Button small onClick={() => window.location.reload()}>
          Load the page again
        </Button>
      </span>
    </div>
  );
}
