"use client";

import { useId, type ComponentProps } from "react";
import { Segmented } from "./Segmented";

/** So many choices, and so many letters in all, stand side by side. */
const MOST_CHOICES = 4;
const MOST_LETTERS = 32;

/** One of choices that come from the plan: side by side while they are few and short, else a list to open. */
export function OneOf(props: ComponentProps<typeof Segmented<string>>) {
  const { label, value, options, onChange } = props;
  const id = useId();
  const letters = options.reduce((sum, option) => sum + option.label.length, 0);
  if (options.length <= MOST_CHOICES && letters <= MOST_LETTERS) return <Segmented {...props} />;
  return (
    <div className="flex max-w-full min-w-0 items-center gap-1.5">
      <label htmlFor={id} className="text-soft">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-8 min-w-0 flex-1 rounded border border-line-strong/60 bg-raised px-1"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
