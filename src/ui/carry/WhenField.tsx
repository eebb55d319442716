"use client";

import { useState } from "react";
import { Button } from "../kit/Button";
import { TextField } from "../kit/Field";
import { nowInstant } from "../reading/nowInstant";
import { instantOf, localOf, whenWords } from "./when";

interface Props {
  label: string;
  /** Null for this moment. */
  value: string | null;
  onChange: (instant: string | null) => void;
}

/** When something was: now, unless it is said otherwise. */
export function WhenField({ label, value, onChange }: Props) {
  const [open, setOpen] = useState(value !== null);
  const [text, setText] = useState(value ? localOf(value) : "");
  if (!open)
    return (
      <Button
        small
        look="quiet"
        className="h-9!"
        onClick={() => {
          setText(localOf(nowInstant()));
          setOpen(true);
        }}
      >
        {label}: now. Change
      </Button>
    );
  return (
    <div className="w-60">
      <TextField
        label={label}
        type="datetime-local"
        autoFocus={value === null}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          onChange(instantOf(event.target.value));
        }}
      />
      <span className="sr-only">{value ? whenWords(value) : ""}</span>
    </div>
  );
}
