import { lengthWords } from "@/core/time/hoursWords";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Choice } from "@/core/compare/compare";
import { pricePerTBWords } from "@/core/words/money";
import { isUpToBox, lossShare } from "@/core/compare/measures";
import Papa from "papaparse";
import { guardCell } from "../spreadsheet";

/** What of a choice stands in a copied comparison. */
export interface TableRow {
  choice: Choice;
  /** Why it does not fit what is needed, or empty. */
  misfit: string;
}

const COLUMNS = [
  "layout",
  "groups",
  "drives",
  "usable_bytes",
  "may_fail",
  "lost_if_one_more_fails",
  "idle_bytes",
  "read_bytes_per_s",
  "write_bytes_per_s",
  "rebuild_hours",
  "price_per_usable_tb",
  "does_not_fit",
] as const;

const share = (value: number) => (Math.round(value * 1000) / 1000).toString();
const rounded = (value: number | null | undefined, digits = 0) =>
  value === null || value === undefined ? "" : String(Math.round(value * 10 ** digits) / 10 ** digits);

/**
 * A comparison as CSV: a line for each choice, sizes in exact bytes, shares of 1, hours as expected.
 *
 * @example comparisonCsv([{ choice: raid5, misfit: "" }]).split("\n")[1] // "RAID 5,,3,8001572306944,1,1,0,…"
 */
export function comparisonCsv(rows: readonly TableRow[]): string {
  const data = rows.map(({ choice: { name, detail, figures }, misfit }) => [
    guardCell(name),
    guardCell(detail),
    String(figures.drives),
    String(figures.usableBytes),
    String(figures.tolerance),
    share(lossShare(figures, figures.tolerance + 1)),
    String(figures.idleBytes),
    rounded(figures.speed?.read),
    rounded(figures.speed?.write),
    rounded(figures.rebuild?.expected, 1),
    rounded(figures.pricePerTB, 2),
    guardCell(misfit),
  ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data }, { newline: "\n" })}\n`;
}

const cell = (text: string) => text.replaceAll("|", "\\|").replace(/\s+/g, " ");

/**
 * A comparison as a Markdown table in the chosen units.
 *
 * @example comparisonMarkdown(rows, "TB").split("\n")[0] // "| Layout | Usable | Survives | …"
 */
export function comparisonMarkdown(rows: readonly TableRow[], family: UnitFamily, currency?: string): string {
  const head = [
    "Layout",
    "Usable",
    "Survives",
    "Lost if one more fails",
    "Unused",
    "Read / write",
    "Rebuild",
    "Price per usable TB",
    "Does not fit",
  ];
  const lines = rows.map(({ choice, misfit }) => {
    const { figures } = choice;
    return [
      choice.detail ? `${choice.name}, ${choice.detail}` : choice.name,
      formatBytes(figures.usableBytes, family),
      figures.tolerance === 0 ? "none" : `any ${figures.tolerance}`,
      isUpToBox(figures, figures.tolerance + 1)
        ? "up to the box"
        : `${Math.round(lossShare(figures, figures.tolerance + 1) * 100)} %`,
      formatBytes(figures.idleBytes, family),
      figures.speed ? `${Math.round(figures.speed.read / 1e6)} / ${Math.round(figures.speed.write / 1e6)} MB/s` : "",
      figures.rebuild ? lengthWords(figures.rebuild.expected) : "not possible",
      figures.pricePerTB === null ? "" : pricePerTBWords(figures.pricePerTB, currency),
      misfit,
    ];
  });
  return `${[head, head.map(() => "---"), ...lines].map((line) => `| ${line.map(cell).join(" | ")} |`).join("\n")}\n`;
}
