"use client";

import type { ComponentProps } from "react";
import { Segmented } from "./Segmented";
import { SelectBeside } from "./Select";

/** So many choices, and so many letters in all, stand side by side. */
const MOST_CHOICES = 4;
const MOST_LETTERS = 32;

/** One of choices that come from the plan: side by side while they are few and short, else a list to open. */
export function OneOf(props: ComponentProps<typeof Segmented<string>>) {
  const letters = props.options.reduce((sum, option) => sum + option.label.length, 0);
  const isShort = props.options.length <= MOST_CHOICES && letters <= MOST_LETTERS;
  return isShort ? <Segmented {...props} /> : <SelectBeside {...props} />;
}
