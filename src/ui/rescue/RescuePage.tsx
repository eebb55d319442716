"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

// On a page of its own it would be cut into pieces that the first page has to fetch too.
const RescueView = part(() => import("./RescueView").then((module) => module.RescueView), { needed: "this page" });

/** What to do now: for a pool that lacks drives, one thing at a time. */
export const RescuePage = planPlace("rescue", RescueView);
