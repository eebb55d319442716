import { parseSize } from "@/core/bytes/parseSize";
import type { Bus, Drive, Medium, NewDrive } from "@/core/document/plan";
import { driveBytes } from "@/core/drives/typedDrive";
import Papa from "papaparse";
import { guardCell, unguardCell } from "../spreadsheet";
import { ownValue } from "@/core/records/ownValue";

/** The columns of a drive list. `size` must be there; the others may be left out or empty. */
export const DRIVE_CSV_COLUMNS = ["size", "model", "serial", "price", "kind"] as const;

export const MOST_CSV_CHARACTERS = 2 ** 20;
const MOST_ROWS = 200;

export type DriveCsvResult = { ok: true; drives: NewDrive[] } | { ok: false; problems: string[] };

const KINDS: Record<string, { medium: Medium; bus: Bus }> = {
  "": { medium: "hdd", bus: "sata" },
  hdd: { medium: "hdd", bus: "sata" },
  sas: { medium: "hdd", bus: "sas" },
  usb: { medium: "hdd", bus: "usb" },
  ssd: { medium: "ssd", bus: "sata" },
  nvme: { medium: "ssd", bus: "nvme" },
};

const kindOf = (drive: Drive) =>
  drive.medium === "ssd"
    ? drive.bus === "nvme"
      ? "nvme"
      : "ssd"
    : drive.bus === "sata" || drive.bus === "nvme"
      ? "hdd"
      : drive.bus;

/** A price with a point or a comma, with or without a currency sign; undefined when empty, null when it is none. */
function readPrice(text: string): number | null | undefined {
  const bare = text.replace(/[\s\u00a0'’]|[^\d.,-]/g, "");
  if (text.trim() === "") return undefined;
  if (!/^\d+(?:[.,]\d{3})*(?:[.,]\d{1,2})?$/.test(bare)) return null;
  const last = /[.,](\d{1,2})$/.exec(bare);
  const whole = (last ? bare.slice(0, last.index) : bare).replace(/[.,]/g, "");
  const price = Number(last ? `${whole}.${last[1]}` : whole);
  return price <= 1e6 ? price : null;
}

/** What is wrong with a list as a whole, or null. */
function listProblem(fields: readonly string[], rows: number): string | null {
  const columns = DRIVE_CSV_COLUMNS as readonly string[];
  if (!fields.includes("size"))
    return `The first line must name the columns: ${columns.join(",")}. A column "size" is needed.`;
  const unknown = fields.filter((field) => !columns.includes(field)).map((field) => `"${field}"`);
  if (unknown.length > 0) return `Unknown column ${unknown.join(", ")}. The columns are ${columns.join(", ")}.`;
  if (rows === 0) return "There is no drive below the first line.";
  return rows > MOST_ROWS
    ? `The list has more than ${MOST_ROWS} lines; at most so many drives are read at once.`
    : null;
}

type Row = Record<string, string>;

/** A text of a row as a field of its own, where there is one. */
const textIn = (row: Row, field: "serial" | "model") => {
  const text = ownValue(row, field);
  return text ? { [field]: text.slice(0, 200) } : {};
};

/** One line as a drive, or everything that is wrong with it. */
function readRow(row: Row): NewDrive | string[] {
  const kind = ownValue(KINDS, (row.kind ?? "").toLowerCase());
  const price = readPrice(row.price ?? "");
  const size = parseSize(row.size ?? "");
  if (!kind || price === null || !size.ok)
    return [
      ...(kind ? [] : [`"${row.kind}" is no kind of drive; use hdd, sas, usb, ssd or nvme.`]),
      ...(price === null ? [`"${row.price}" is not a price.`] : []),
      ...(size.ok ? [] : [size.message]),
    ];
  const bytes = driveBytes(size.size, kind.medium);
  if (bytes < 1e9 || bytes > 1e15) return [`no drive has ${row.size}. Is the unit right?`];
  return {
    label: "",
    ...textIn(row, "serial"),
    ...textIn(row, "model"),
    ...(price !== undefined ? { price } : {}),
    bytes,
    ...kind,
    logicalSector: 512,
    physicalSector: kind.medium === "hdd" ? 4096 : 512,
    health: { state: "good" },
  };
}

/**
 * Reads a list of drives: a CSV with a header of `DRIVE_CSV_COLUMNS` in any order, parted by commas, semicolons or
 * tabs, quoted where needed. Sizes as people type them, prices with a point or a comma.
 *
 * @returns the drives, or every problem with its line; it never throws
 * @example readDriveCsv('size,price\n"4 TB","99,90"') // one drive of 4 000 787 030 016 B at 99.9
 */
export function readDriveCsv(text: string): DriveCsvResult {
  if (text.length > MOST_CSV_CHARACTERS)
    return { ok: false, problems: ["The file is larger than 1 MB. A list has at most 200 drives."] };
  const { rows, fields } = parseRows(text.replace(/^\uFEFF/, ""));
  const problem = listProblem(fields, rows.length);
  if (problem !== null) return { ok: false, problems: [problem] };
  const read = rows.map(({ row, wrong }) => (wrong.length > 0 ? wrong : readRow(row)));
  const problems = read.flatMap((row, i) =>
    Array.isArray(row) ? row.map((message) => `Line ${rows[i]?.line ?? 0}: ${message}`) : [],
  );
  return problems.length > 0
    ? { ok: false, problems }
    : { ok: true, drives: read.flatMap((row) => (Array.isArray(row) ? [] : [row])) };
}

/** A row with the line on which it begins, and what is wrong with how it is written. */
interface ParsedRow {
  row: Row;
  line: number;
  wrong: string[];
}

const WRITTEN_WRONG: Partial<Record<Papa.ParseError["code"], string>> = {
  MissingQuotes: "a quotation mark is opened here and never closed.",
  InvalidQuotes: "after a closing quotation mark there must be a comma or the end of the line.",
};

const TOO_MANY = "there are more fields than columns. Put fields with a comma in quotation marks.";

/** What parts the fields: that which parts the names of the columns, in which it stands nowhere else. */
function delimiterOf(text: string): string {
  const [names = ""] = text.trimStart().split("\n", 1);
  const count = (sign: string) => names.split(sign).length;
  return [",", ";", "\t"].reduce((best, sign) => (count(sign) > count(best) ? sign : best));
}

/** The rows of a CSV with a header, each with its line, and its columns; empty rows are passed over. */
function parseRows(text: string): { rows: ParsedRow[]; fields: string[] } {
  const rows: ParsedRow[] = [];
  let fields: string[] | null = null;
  let begun = 0;
  Papa.parse<string[]>(text, {
    delimiter: delimiterOf(text),
    step: ({ data, errors, meta }, parser) => {
      const line = text.slice(0, begun).split("\n").length;
      begun = meta.cursor;
      const cells = data.map((cell) => unguardCell(cell.trim()));
      const wrong = errors.flatMap(({ code }) => WRITTEN_WRONG[code] ?? []);
      if (wrong.length === 0 && cells.every((cell) => cell === "")) return;
      if (!fields) {
        fields = cells.map((name) => name.toLowerCase());
        return;
      }
      if (cells.slice(fields.length).some((cell) => cell !== "")) wrong.push(TOO_MANY);
      rows.push({ row: Object.fromEntries(fields.map((name, i) => [name, cells[i] ?? ""])), line, wrong });
      if (rows.length > MOST_ROWS) parser.abort();
    },
  });
  return { rows, fields: fields ?? [] };
}

/** A list of drives as CSV, sizes in exact bytes. Cells that a spreadsheet would take for a formula are disarmed. */
export function writeDriveCsv(drives: readonly Drive[]): string {
  const rows = drives.map((drive) => [
    String(drive.bytes),
    guardCell(drive.model ?? ""),
    guardCell(drive.serial ?? ""),
    drive.price === undefined ? "" : String(drive.price),
    kindOf(drive),
  ]);
  return `${Papa.unparse({ fields: [...DRIVE_CSV_COLUMNS], data: rows }, { newline: "\n" })}\n`;
}
