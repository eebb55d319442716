import type { Bytes } from "./bytes";

/** The family of units that the user chose: decimal (TB, GB …) or binary (TiB, GiB …). */
export type UnitFamily = "TB" | "TiB";

const NAMES: Record<UnitFamily, readonly string[]> = {
  TB: ["B", "kB", "MB", "GB", "TB", "PB"],
  TiB: ["B", "KiB", "MiB", "GiB", "TiB", "PiB"],
};

/** A size ready to be shown: the figure and its unit apart, so that they can be set in different type. */
export interface ShownSize {
  figure: string;
  unit: string;
}

/** U+202F, a narrow space that does not break, between groups of digits. */
const NARROW_SPACE = "\u202f";

/** U+00A0, a space that does not break, between figure and unit. */
export const UNIT_SPACE = "\u00a0";

function digitsAfterPoint(value: number): number {
  if (value >= 999.5) return 0;
  if (value >= 99.95) return 1;
  return 2;
}

/**
 * A byte count in the largest unit that leaves at least 1 before the point, with three or four significant digits.
 *
 * @example showBytes(8_001_572_831_232, "TB") // { figure: "8.00", unit: "TB" }
 * @example showBytes(12_000_138_625_024, "TiB") // { figure: "10.91", unit: "TiB" }
 */
export function showBytes(bytes: Bytes, family: UnitFamily): ShownSize {
  const base = family === "TB" ? 1000 : 1024;
  const names = NAMES[family];
  const magnitude = Math.abs(bytes);
  let power = 0;
  let value = magnitude;
  while (power < names.length - 2 && value >= base * 0.9995) {
    value /= base;
    power += 1;
  }
  const figure = power === 0 ? String(magnitude) : value.toFixed(digitsAfterPoint(value));
  return { figure: `${bytes < 0 ? "−" : ""}${groupDigits(figure)}`, unit: names[power] ?? "B" };
}

/** The same as one string: `formatBytes(8_001_572_831_232, "TB")` is "8.00 TB" (with a space that does not break). */
export function formatBytes(bytes: Bytes, family: UnitFamily): string {
  const { figure, unit } = showBytes(bytes, family);
  return `${figure}${UNIT_SPACE}${unit}`;
}

/** A change with its sign: "+4.00 TB", "−12.0 GB", "±0 B". */
export function formatChange(bytes: number, family: UnitFamily): string {
  if (bytes === 0) return `±0${UNIT_SPACE}B`;
  return `${bytes > 0 ? "+" : ""}${formatBytes(bytes, family)}`;
}

/** A byte count to the last byte with its digits in groups of three: "4 000 787 030 016 B" (narrow spaces). */
export function formatExactBytes(bytes: Bytes): string {
  return `${bytes < 0 ? "−" : ""}${groupDigits(String(Math.abs(bytes)))}${UNIT_SPACE}B`;
}

function groupDigits(figure: string): string {
  const [whole = "", fraction] = figure.split(".");
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, NARROW_SPACE) : whole;
  return fraction === undefined ? grouped : `${grouped}.${fraction}`;
}
