"use client";

import type { Drive, DriveChanges } from "@/core/document/plan";
import { inOrder } from "@/core/drives/inOrder";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { capital } from "@/core/words/capital";
import { TextField } from "../kit/Field";
import { FormDialog } from "../kit/FormDialog";
import type { Wrong } from "../kit/wrong";
import { textOf } from "../kit/textOf";
import { useUnit } from "../preferences/preferences";

/** The longest serial that a plan keeps. */
const MOST_SERIAL = 200;

interface Props {
  drives: readonly Drive[];
  onSave: (edits: { drive: string; changes: DriveChanges }[]) => string | null;
  onClose: () => void;
}

/** A serial that two drives would have, or that another drive has already; null where each has one of its own. */
function doubled(typed: readonly string[], known: readonly Drive[]): string | null {
  const seen = new Set(known.map((drive) => drive.serial?.toLowerCase()));
  return typed.find((serial) => seen.has(serial.toLowerCase()) || !seen.add(serial.toLowerCase())) ?? null;
}

/** The serials of the drives that have none yet, all in one form. */
export function SerialsDialog({ drives, onSave, onClose }: Props) {
  const [unit] = useUnit();
  const bare = inOrder(drives).filter((drive) => !drive.serial && !drive.toBuy);
  const save = (data: FormData): Wrong => {
    const edits = bare.flatMap((drive) => {
      const serial = textOf(data, drive.id).trim();
      return serial ? [{ drive: drive.id, changes: { serial } }] : [];
    });
    const twice = doubled(
      edits.map(({ changes }) => changes.serial),
      drives,
    );
    if (twice !== null)
      return {
        field: edits.findLast(({ changes }) => changes.serial === twice)?.drive ?? "",
        message: `Two drives cannot both have the serial ${twice}. Look at the labels again.`,
      };
    return edits.length === 0
      ? { field: bare[0]?.id ?? "", message: "Type at least one serial number." }
      : onSave(edits);
  };
  return (
    <FormDialog
      title="Serial numbers"
      about="They stand on the drives’ labels, and on your box’s own screen. Leave empty what you cannot read now."
      onSave={save}
      onClose={onClose}
    >
      {bare.map((drive) => (
        <TextField
          key={drive.id}
          label={capital(nameOfDrive(drive, unit).replace(/^the /, ""))}
          name={drive.id}
          maxLength={MOST_SERIAL}
          autoComplete="off"
          spellCheck={false}
        />
      ))}
    </FormDialog>
  );
}
