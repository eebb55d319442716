"use client";

import { planPlace } from "../shell/planPlace";
import { CompareView } from "./CompareView";

/** The drives of a plan in every layout, side by side. */
export const ComparePage = planPlace("compare", CompareView);
