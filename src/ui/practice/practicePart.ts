"use client";

import { part } from "../kit/part";

/** The practice box of the plan that is shown; nothing where it has none. */
export const PracticePanel = part(() => import("./PracticePanel").then((module) => module.PracticePanel), {
  needed: "the practice box",
});
