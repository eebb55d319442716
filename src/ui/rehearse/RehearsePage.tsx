"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

const RehearseView = part(() => import("./RehearseView").then((module) => module.RehearseView), {
  needed: "this page",
});

/** The plan played on a simulated box, with mishaps; and all of them tried. */
export const RehearsePage = planPlace("rehearse", RehearseView);
