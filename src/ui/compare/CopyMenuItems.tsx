"use client";

import { comparisonCsv, comparisonMarkdown, type TableRow } from "@/exchange/comparison/comparisonTable";
import { MenuItem, MenuLine } from "../kit/Menu";
import { useUnit } from "../preferences/preferences";
import { exportFile } from "../kit/exportFile";
import { say } from "../kit/say";

/** The comparison as text: to the clipboard, or to a file where that is not allowed. */
export function CopyMenuItems({ rows, currency }: { rows: readonly TableRow[]; currency: string | undefined }) {
  const [unit] = useUnit();
  const copy = async (name: string, type: string, text: string) => {
    try {
      await navigator.clipboard.writeText(text);
      say("The comparison is on the clipboard.");
    } catch {
      exportFile(name, type, text);
    }
  };
  return (
    <>
      <MenuItem onSelect={() => void copy("comparison.md", "text/markdown", comparisonMarkdown(rows, unit, currency))}>
        Copy as a Markdown table
      </MenuItem>
      <MenuItem onSelect={() => void copy("comparison.csv", "text/csv", comparisonCsv(rows))}>Copy as CSV</MenuItem>
      <MenuLine />
      <MenuItem onSelect={() => exportFile("comparison.csv", "text/csv", comparisonCsv(rows))}>Save as CSV</MenuItem>
    </>
  );
}
