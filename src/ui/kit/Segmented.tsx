"use client";

import { ToggleGroup } from "radix-ui";

/** A few choices side by side, of which one is on. */
export function Segmented<T extends string>({ label, value, options, onChange }: { label: string; value: T; options: readonly { value: T; label: string }[]; onChange: (value: T) => void }) {
  return (
    <ToggleGroup.Root type="single" aria-label={label} value={value} onValueChange={(next) => next && onChange(next as T)} className="inline-flex h-8 rounded border border-line-strong/60 bg-raised p-0.5">
      {options.map((option) => (
        <ToggleGroup.Item key={option.value} value={option.value} className="rounded-[3px] px-2 text-[0.87rem] text-soft hover:text-ink data-[state=on]:bg-indigo data-[state=on]:text-on-indigo">
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
