"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

// On a page of its own it would be cut into pieces that the first page has to fetch too.
const ReadingView = part(() => import("./ReadingView").then((module) => module.ReadingView), { needed: "this page" });

/** How the box is now, held against the plan. */
export const ReadingPage = planPlace("reading", ReadingView);
