"use client";

import { useId, useState, type ReactNode } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import { type Wrong, WrongField } from "./wrong";

/** Gives the focus to the field that is wrong; whether it is there. */
function focusField(form: HTMLFormElement, name: string): boolean {
  const field = form.elements.namedItem(name);
  if (field instanceof HTMLElement) field.focus();
  return field !== null;
}

interface Props {
  title: string;
  about?: string;
  /** Saves what was typed; says what is wrong with it, and where, or nothing. */
  onSave: (data: FormData) => Wrong;
  /** Told of what is typed or chosen, as it is. */
  onChange?: (data: FormData) => void;
  /** Where the thing can be taken away. */
  onRemove?: () => void;
  onClose: () => void;
  children: ReactNode;
}

/**
 * A dialog with the fields of one thing, which begins in the first: saved when they are right, otherwise it says at the
 * field what is wrong, and keeps what was typed.
 */
export function FormDialog({ title, about, onSave, onChange, onRemove, onClose, children }: Props) {
  const form = useId();
  const [trouble, setTrouble] = useState<Wrong>(null);
  const fieldWrong = typeof trouble === "string" ? null : trouble;
  return (
    <Dialog
      open
      beginsInField
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
          if (wrong === null) return onClose();
          const isSaid = typeof wrong === "string" || focusField(event.currentTarget, wrong.field);
          // What no field says, the form says.
          setTrouble(isSaid ? wrong : wrong.message);
        }}
      >
        <WrongField value={fieldWrong}>{children}</WrongField>
        {typeof trouble === "string" && (
          <p role="alert" className="text-geranium sm:col-span-2">
            {trouble}
          </p>
        )}
      </form>
    </Dialog>
  );
}
