"use client";

import { part } from "../kit/part";
import { planPlace } from "../shell/planPlace";

const GrowthView = part(() => import("./GrowthView").then((module) => module.GrowthView), { needed: "this page" });

/** Which drives to buy, when and into which place, so that the box holds what will be stored for years. */
export const GrowthPage = planPlace("growth", GrowthView);
