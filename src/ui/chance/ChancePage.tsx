"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

const ChanceView = part(() => import("./ChanceView").then((module) => module.ChanceView), { needed: "this page" });

/** How likely something is lost, at rest and along the plan, by what, and what lowers it most. */
export const ChancePage = planPlace("chance", ChanceView);
