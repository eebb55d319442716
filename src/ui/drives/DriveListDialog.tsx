"use client";
import { DRIVE_CSV_COLUMNS, readDriveCsv } from "@/exchange/driveList/driveCsv";
import { TextDialog } from "./TextDialog";
import type { NewDrive } from "@/core/document/plan";

/** Brings in a list of drives as CSV. */
export function DriveListDialog({
  onClose,
  onTake,
}: {
  onClose: () => void;
  onTake: (drives: NewDrive[]) => string | null;
}) {
  const take = (text: string): string[] => {
    const result = readDriveCsv(text);
    if (!result.ok) return result.problems;
    const refused = onTake(result.drives);
    return refused ? [refused] : [];
  };
  return (
    <TextDialog
      title="Bring in a list of drives"
      about="A CSV file from a spreadsheet. Only the size is needed; sizes and prices may have a point or a comma."
      source={{
        example: `${DRIVE_CSV_COLUMNS.join(",")}\n4 TB,Tejora Cal 4,TJ4-5001,99.90,hdd`,
        label: "List of drives",
        placeholder: DRIVE_CSV_COLUMNS.join(","),
      }}
      takeLabel="Put on the shelf"
      onTake={take}
      onClose={onClose}
    />
  );
}
