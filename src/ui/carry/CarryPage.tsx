"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

const CarryView = part(() => import("./CarryView").then((module) => module.CarryView), { needed: "this page" });

/** The plan carried out at the box, a step at a time. */
export const CarryPage = planPlace("carry", CarryView);
