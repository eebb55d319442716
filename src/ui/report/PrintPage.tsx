"use client";

import { planPlace } from "../shell/planPlace";
import { ReportPage } from "./ReportPage";

/** The plan as a document to hold: to be printed, or kept as a PDF. */
export const PrintPage = planPlace("print", ReportPage);
