"use client";

import { Button } from "./Button";

/** That a part of Cortijo could not be loaded, in its place, with a way to try again. */
export function Unloaded({ what, onAgain }: { what: string; onAgain: () => void }) {
  return (
    <div role="alert" className="space-y-2 p-3 text-[0.95rem]">
      <p>
        A part of Cortijo that is needed for {what} could not be loaded: its server has stopped, or has been updated.
        Nothing of your plan is lost.
      </p>
      <span className="flex flex-wrap gap-2">
        <Button small look="main" onClick={onAgain}>
          Try again
        </Button>
        <Button small onClick={() => window.location.reload()}>
          Load the page anew
        </Button>
      </span>
    </div>
  );
}
