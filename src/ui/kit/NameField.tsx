"use client";

import { useState, type KeyboardEvent } from "react";

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  className?: string;
}

/** A name that is edited where it stands: Enter or leaving keeps it, Escape brings the old one back. */
export function NameField({ label, value, onChange, className = "" }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const keep = () => {
    const next = draft?.trim();
    if (next && next !== value) onChange(next);
    setDraft(null);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") event.currentTarget.blur();
    if (event.key === "Escape") {
      setDraft(null);
      event.stopPropagation();
    }
  };
  return (
    <input
      aria-label={label}
      title={label}
      value={draft ?? value}
      maxLength={120}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={keep}
      onKeyDown={onKeyDown}
      className={`min-w-0 truncate rounded border border-transparent bg-transparent px-1.5 hover:border-line-strong/60 focus:border-line-strong focus:bg-raised ${className}`}
    />
  );
}
