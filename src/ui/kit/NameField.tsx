"use client";

import { useEffect, useEffectEvent, useState, type KeyboardEvent } from "react";

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** Tells when what stands in the field is not kept yet, and when it is. */
  onTyping?: (isTyped: boolean) => void;
  className?: string;
}

/** After so long without a key what is typed is kept, so that it is not lost with the page. */
const PAUSE_MS = 700;

/** A name that is edited where it stands: a pause, Enter or leaving keeps it; Escape brings the old one back. */
export function NameField({ label, value, onChange, onTyping, className = "" }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const [before, setBefore] = useState(value);
  const keep = () => {
    const next = draft ?? "";
    if (next.trim() !== "" && next !== value) onChange(next);
    setDraft(null);
  };
  const keepTyped = useEffectEvent(() => {
    if (draft !== null && draft.trim() !== "" && draft !== value) onChange(draft);
  });
  const isTyped = draft !== null && draft !== value;
  const tell = useEffectEvent((typed: boolean) => onTyping?.(typed));
  useEffect(() => tell(isTyped), [isTyped]);
  useEffect(() => {
    if (draft === null) return;
    const pause = setTimeout(keepTyped, PAUSE_MS);
    return () => clearTimeout(pause);
  }, [draft]);
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") event.currentTarget.blur();
    if (event.key === "Escape") {
      if (before !== value) onChange(before);
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
      onFocus={() => setBefore(value)}
      onBlur={keep}
      onKeyDown={onKeyDown}
      className={
        "min-w-0 truncate rounded border border-transparent bg-transparent px-1.5 hover:border-line-strong/60 " +
        `focus:border-line-strong focus:bg-raised ${className}`
      }
    />
  );
}
