"use client";

import { lazy, Suspense, useEffect, useState, type ComponentType, type ReactNode } from "react";
import { Unloaded } from "./Unloaded";

interface Options<P> {
  /** What it is needed for, in words: "this dialog". */
  needed?: string;
  /** Where it is said that it could not be loaded: in its own place, or over the page for what has none. */
  said?: "in-place" | "over";
  /** What stands there until it is loaded; "whatever is around" leaves that to a Suspense around it. */
  meanwhile?: ReactNode | "whatever is around";
  /** What stays on the page beside that it could not be loaded. */
  beside?: (props: P) => ReactNode;
}

type Loader<P> = () => Promise<ComponentType<P>>;

/** Tells when what is shown is not any more. */
function Leaving({ onLeave, children }: { onLeave: () => void; children: ReactNode }) {
  useEffect(() => onLeave, [onLeave]);
  return children;
}

/** One try to load a part: the part, or that it could not be loaded. */
function attemptOf<P extends object>(load: Loader<P>, options: Options<P>, onOver: () => void) {
  const { needed = "this", said, beside } = options;
  type Attempt = ComponentType<{ own: P; onAgain: () => void }>;
  return lazy(async (): Promise<{ default: Attempt }> => {
    try {
      const Loaded = await load();
      return { default: ({ own }) => <Loaded {...own} /> };
    } catch {
      const again = (onAgain: () => void) => () => {
        onOver();
        onAgain();
      };
      const failed: Attempt = ({ own, onAgain }) => (
        <Leaving onLeave={onOver}>
          {beside?.(own)}
          <Unloaded what={needed} said={said} onAgain={again(onAgain)} />
        </Leaving>
      );
      return { default: failed };
    }
  });
}

/**
 * A part of the page that is loaded when it is first shown. Where it cannot be loaded (the server was stopped, or has a
 * new build) that is said in its place, with a way to try again; what was typed elsewhere stays.
 *
 * @param load imports the component
 * @example const DriveDialog = part(() => import("./DriveDialog").then((module) => module.DriveDialog), { said: "over" })
 */
export function part<P extends object>(load: Loader<P>, options: Options<P> = {}): ComponentType<P> {
  const { meanwhile = null } = options;
  const attempts: ReturnType<typeof attemptOf<P>>[] = [];
  // Whoever shows the part again after it could not be loaded tries once more; while it says so, it stays at that.
  let next = 0;
  const attemptNumber = (n: number) => (attempts[n] ??= attemptOf(load, options, () => (next = n + 1)));
  return function Part(props: P) {
    const [attempt, setAttempt] = useState(() => next);
    const Attempt = attemptNumber(attempt);
    const shown = <Attempt own={props} onAgain={() => setAttempt(next)} />;
    return meanwhile === "whatever is around" ? shown : <Suspense fallback={meanwhile}>{shown}</Suspense>;
  };
}
