"use client";

import { planPlace } from "../shell/planPlace";
import { DataView } from "./DataView";

/** What is stored, how it grows, where else it is kept, and what each mishap would take. */
export const DataPage = planPlace("data", DataView);
