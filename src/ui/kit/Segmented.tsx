"use client";

import { useId } from "react";

/** A few choices side by side, of which one is on. */
export function Segmented<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}) {
  const name = useId();
  return (
    <div
      role="radiogroup"
      aria-label={label}
      className="inline-flex h-8 rounded border border-line-strong/60 bg-raised p-0.5"
    >
      {options.map((option) => (
        <label
          key={option.value}
          className={
            "relative inline-flex cursor-pointer items-center rounded-[3px] px-2 text-[0.87rem] text-soft " +
            "hover:text-ink has-checked:bg-indigo has-checked:text-on-indigo has-focus-visible:outline-2 " +
            "has-focus-visible:outline-offset-2 has-focus-visible:outline-[var(--focus)]"
          }
        >
          <input
            type="radio"
            name={name}
            value={option.value}
            checked={option.value === value}
            onChange={() => onChange(option.value)}
            className="absolute inset-0 cursor-pointer opacity-0"
          />
          {option.label}
        </label>
      ))}
    </div>
  );
}
