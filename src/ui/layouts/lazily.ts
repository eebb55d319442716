"use client";

import { part } from "../kit/part";

/** What a layout is, explained: loaded when it is asked for. */
export const LayoutDialog = part(() => import("./LayoutDialog").then((module) => module.LayoutDialog), {
  needed: "this",
  said: "over",
});
