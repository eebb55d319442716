import { MOST_PRICES } from "@/core/document/limits";
import type { PricedDrive } from "@/core/document/plan";
import Papa from "papaparse";
import { guardCell } from "../spreadsheet";
import { readDriveCsv } from "./driveCsv";

export type PriceCsvResult = { ok: true; prices: PricedDrive[] } | { ok: false; problems: string[] };

/**
 * Reads a price list: the CSV of a drive list in which every line has a price; the model is what the shop calls it.
 *
 * @returns the prices, or every problem with its line; it never throws
 * @example readPriceCsv("size,price\n12 TB,238") // one hard disk of 12 000 138 625 024 B at 238
 */
export function readPriceCsv(text: string): PriceCsvResult {
  const read = readDriveCsv(text);
  if (!read.ok) return read;
  if (read.drives.length > MOST_PRICES)
    return {
      ok: false,
      problems: [`The list has ${read.drives.length} lines; a price list has at most ${MOST_PRICES}.`],
    };
  const missing = read.drives.flatMap((drive, i) =>
    drive.price === undefined ? [`Line ${i + 2}: there is no price.`] : [],
  );
  if (missing.length > 0) return { ok: false, problems: missing };
  return {
    ok: true,
    prices: read.drives.map(({ bytes, price = 0, medium, bus, model = "" }) => ({
      bytes,
      price,
      medium,
      bus,
      label: model.slice(0, 120),
    })),
  };
}

const kindOf = ({ medium, bus }: PricedDrive) =>
  medium === "ssd" ? (bus === "nvme" ? "nvme" : "ssd") : bus === "sata" || bus === "nvme" ? "hdd" : bus;

/** A price list as text that `readPriceCsv` reads: sizes as they are sold. */
export function writePriceCsv(prices: readonly PricedDrive[], sizeOf: (item: PricedDrive) => string): string {
  return `${Papa.unparse({ fields: ["size", "price", "kind", "model"], data: prices.map((item) => [sizeOf(item), String(item.price), kindOf(item), guardCell(item.label)]) }, { newline: "\n" })}\n`;
}
