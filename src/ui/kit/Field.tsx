import type { ReactNode } from "react";

/** The look of a text field or a select under its label. */
export const FIELD = "mt-0.5 h-9 w-full rounded border border-line-strong/70 bg-raised px-2";

/** A field with its label above it. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block min-w-0">
      <span className="text-[0.9rem] text-soft">{label}</span>
      {children}
    </label>
  );
}
