"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

const LogbookView = part(() => import("./LogbookView").then((module) => module.LogbookView), { needed: "this page" });

/** All that happened, in the plan and outside it. */
export const LogbookPage = planPlace("logbook", LogbookView);
