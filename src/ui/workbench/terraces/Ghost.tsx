import { useState } from "react";
import { useAfter } from "../../kit/useAfter";
import { useLoaded } from "../../kit/useLoaded";
import type { GhostProps } from "./GhostBay";
import { GhostMissing } from "./GhostMissing";

const load = () => import("./GhostBay").then((module) => module.GhostBay);

/** How long after the box what another drive would bring is loaded and worked out, in milliseconds. */
const AFTER_MS = 1000;

/** What another drive would bring, in a free bay: well after the box itself, and with a way to try again. */
export function Ghost(props: Omit<GhostProps, "takesFocus" | "onFocusTaken">) {
  const { value: GhostBay, again } = useLoaded(load, useAfter(AFTER_MS));
  const [wasAsked, ask] = useState(false);
  const tryAgain = () => {
    ask(true);
    again?.();
  };
  if (again) return <GhostMissing {...props} onAgain={tryAgain} />;
  return GhostBay && <GhostBay {...props} takesFocus={wasAsked} onFocusTaken={() => ask(false)} />;
}
