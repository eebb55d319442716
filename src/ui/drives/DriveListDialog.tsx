"use client";

import { useState } from "react";
import type { NewDrive } from "@/core/commands/command";
import { DRIVE_CSV_COLUMNS, MOST_CSV_CHARACTERS, readDriveCsv } from "@/exchange/driveList/driveCsv";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { ProblemLines } from "../kit/ProblemLines";
import { TextSource } from "./TextSource";

/** Brings in a list of drives as CSV. */
export function DriveListDialog({ onClose, onTake }: { onClose: () => void; onTake: (drives: NewDrive[]) => string | null }) {
  const [text, setText] = useState("");
  const [problems, setProblems] = useState<string[]>([]);
  const take = (source: string) => {
    const result = readDriveCsv(source);
    if (!result.ok) return setProblems(result.problems);
    const refused = onTake(result.drives);
    if (refused) setProblems([refused]);
    else onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Bring in a list of drives"
      about="A CSV file from a spreadsheet. Only the size is needed; sizes and prices may have a point or a comma."
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={text.trim() === ""} onClick={() => take(text)}>
            Put on the shelf
          </Button>
        </>
      }
    >
      <TextSource
        example={`${DRIVE_CSV_COLUMNS.join(",")}\n4 TB,Tejora Cal 4,TJ4-5001,99.90,hdd`}
        label="List of drives"
        placeholder={DRIVE_CSV_COLUMNS.join(",")}
        accept=".csv,.txt,text/csv,text/plain"
        value={text}
        onChange={(next) => {
          setText(next);
          setProblems([]);
        }}
        onFiles={take}
        most={MOST_CSV_CHARACTERS}
        onTrouble={(message) => setProblems([message])}
      />
      <ProblemLines problems={problems} />
    </Dialog>
  );
}
