"use client";

import { useId, useState, type ReactNode } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";

interface Props {
  title: string;
  about?: string;
  /** Saves what was typed; says what is wrong with it, or nothing. */
  onSave: (data: FormData) => string | null;
  /** Told of what is typed or chosen, as it is. */
  onChange?: (data: FormData) => void;
  /** Where the thing can be taken away. */
  onRemove?: () => void;
  onClose: () => void;
  children: ReactNode;
}

/**
 * A dialog with the fields of one thing: saved when they are right, otherwise it says what is wrong and keeps what was
 * typed.
 */
export function FormDialog({ title, about, onSave, onChange, onRemove, onClose, children }: Props) {
  const form = useId();
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <Dialog
      open
      onClose={onClose}
      title={title}
      about={about}
      acts={
        <>
          {onRemove && (
            <Button
              className="mr-auto text-geranium!"
              onClick={() => {
                onRemove();
                onClose();
              }}
            >
              Remove
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form={form}>
            Save
          </Button>
        </>
      }
    >
      <form
        id={form}
        noValidate
        className="grid gap-3 sm:grid-cols-2"
        onChange={onChange && ((event) => onChange(new FormData(event.currentTarget)))}
        onSubmit={(event) => {
          event.preventDefault();
          const wrong = onSave(new FormData(event.currentTarget));
          setTrouble(wrong);
          if (wrong === null) onClose();
        }}
      >
        {children}
        {trouble && (
          <p role="alert" className="text-geranium sm:col-span-2">
            {trouble}
          </p>
        )}
      </form>
    </Dialog>
  );
}
