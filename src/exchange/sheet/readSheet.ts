import type { RecordedStep } from "@/core/document/command";
import validateSheet from "./generated/validateSheet.cjs";

/** What a sheet brings back of a step. */
export type SheetStep = RecordedStep;

export type SheetResult = { ok: true; plan: string; steps: SheetStep[] } | { ok: false; message: string };

/** The largest text that is read: the line of a sheet of 2,000 steps is a tenth of it. */
export const MOST_SHEET_CHARACTERS = 2 ** 20;

const NO_SHEET =
  'This is not the line of a sheet. It begins with {"format":"cortijo-sheet" and stands at the end of the ' +
  "sheet: copy the whole of it, or save it there as a file.";

/**
 * Reads what a sheet brings back: its line, pasted, or the file that it saves. Whatever stands before and after the
 * line is passed over.
 *
 * @returns the steps with their times, or what is wrong; it never throws
 * @example readSheet('{"format":"cortijo-sheet","version":1,"steps":[{"step":"s1","start":"2026-11-28T09:05Z"}]}')
 */
export function readSheet(text: string): SheetResult {
  if (text.length > MOST_SHEET_CHARACTERS) return { ok: false, message: "This is larger than a sheet can be." };
  const line = text.slice(text.indexOf("{"), text.lastIndexOf("}") + 1);
  let value: unknown;
  try {
    value = JSON.parse(line);
  } catch {
    return { ok: false, message: NO_SHEET };
  }
  const sheet = value as { format?: unknown; version?: unknown; plan?: string; steps: SheetStep[] };
  if (typeof value !== "object" || value === null || sheet.format !== "cortijo-sheet")
    return { ok: false, message: NO_SHEET };
  if (typeof sheet.version === "number" && sheet.version > 1)
    return { ok: false, message: "This sheet was made by a newer Cortijo. Update Cortijo to bring it back." };
  if (!validateSheet(value)) {
    const [error] = validateSheet.errors ?? [];
    const where = error?.instancePath ? ` at ${error.instancePath}` : "";
    return { ok: false, message: `A part of this line is damaged${where}: copy the whole of it once more.` };
  }
  if (sheet.steps.length === 0)
    return { ok: false, message: "No step on this sheet has a time yet: there is nothing to bring back." };
  return { ok: true, plan: sheet.plan ?? "", steps: sheet.steps };
}
