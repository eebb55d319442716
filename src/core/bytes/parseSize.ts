import type { Bytes } from "./bytes";

/** What a typed size says. `decimals` is how many digits were given after the decimal sign. */
export interface ParsedSize {
  kind: "decimal" | "binary" | "bytes";
  bytes: Bytes;
  /** The unit as it is properly written, for instance "TiB"; "B" for a bare count. */
  unit: string;
  decimals: number;
}

export type SizeResult = { ok: true; size: ParsedSize } | { ok: false; message: string };

const POWERS = new Map<string, { kind: ParsedSize["kind"]; factor: bigint; unit: string }>([
  ["", { kind: "bytes", factor: 1n, unit: "B" }],
  ["b", { kind: "bytes", factor: 1n, unit: "B" }],
]);
["K", "M", "G", "T", "P"].forEach((letter, i) => {
  const lower = letter.toLowerCase();
  const decimal = {
    kind: "decimal" as const,
    factor: 1000n ** BigInt(i + 1),
    unit: `${letter === "K" ? "k" : letter}B`,
  };
  const binary = { kind: "binary" as const, factor: 1024n ** BigInt(i + 1), unit: `${letter}iB` };
  POWERS.set(lower, decimal);
  POWERS.set(`${lower}b`, decimal);
  POWERS.set(`${lower}ib`, binary);
  POWERS.set(`${lower}i`, binary);
});

const fail = (message: string): SizeResult => ({ ok: false, message });

/** The digits of a number before and after its decimal sign. */
type Digits = { whole: string; fraction: string };

/** Whether digits are grouped in threes by a separator. */
const grouped = (text: string, separator: string): boolean =>
  text.split(separator).every((part, i) => (i === 0 ? /^\d{1,3}$/.test(part) : /^\d{3}$/.test(part)));

const noFraction = (text: string): string => `A count of bytes has no fraction: "${text}".`;
const notGrouped = (text: string): string => `The digits of "${text}" are not grouped in threes.`;

/** Units in which nobody means thousands: "1.234 TB" has a fraction. */
const LARGE_UNITS: ReadonlySet<string> = new Set(["TB", "TiB", "PB", "PiB"]);

/**
 * A single point or comma: a decimal sign, or in a count of bytes one that groups; unclear where it could be either.
 */
function readOneMark(text: string, mark: string, unit: string): Digits | string {
  const [before = "", after = ""] = text.split(mark);
  if (unit === "B") return grouped(text, mark) ? { whole: before + after, fraction: "" } : noFraction(text);
  if (!LARGE_UNITS.has(unit) && /^[1-9]\d?$/.test(before) && after.length === 3)
    return (
      `"${text} ${unit}" can be read in two ways. Write ${before}${after} ${unit} or ${before}${mark}${after}0 ` +
      `${unit}.`
    );
  return { whole: before || "0", fraction: after };
}

/** Splits digits and separators into a whole and a fractional part, or says what is unclear. */
function readNumber(text: string, unit: string): Digits | string {
  const marks = [...text].filter((c) => c === "," || c === ".");
  const last = marks.at(-1);
  if (last === undefined) return { whole: text, fraction: "" };
  if (marks.length === 1) return readOneMark(text, last, unit);
  if (new Set(marks).size === 1)
    return grouped(text, last) ? { whole: text.split(last).join(""), fraction: "" } : notGrouped(text);
  const [before, after] = [text.slice(0, text.lastIndexOf(last)), text.slice(text.lastIndexOf(last) + 1)];
  const other = last === "," ? "." : ",";
  if (marks.filter((mark) => mark === last).length > 1 || !grouped(before, other)) return notGrouped(text);
  if (unit === "B" && after !== "") return noFraction(text);
  return { whole: before.split(other).join(""), fraction: after };
}

/**
 * Reads a size as people type it: "4 TB", "3.6TiB", "931,51 GiB", "500gb", "4 000 787 030 016".
 * A point or a comma is the decimal sign; spaces, apostrophes and underscores group digits. TB is always
 * 10^12 bytes and TiB 2^40. The result is rounded to the nearest byte.
 *
 * @param text what was typed
 * @returns the size in bytes, or a sentence that says what is wrong with the text; it never throws
 * @example parseSize("3,6 TiB")
 * // { ok: true, size: { kind: "binary", bytes: 3 958 241 859 994, unit: "TiB", decimals: 1 } }
 */
export function parseSize(text: string): SizeResult {
  if (text.length > 60) return fail("That is too long for a size. Write it like 4 TB or 3.6 TiB.");
  const match = /^([\d.,]+)([a-z]*)$/i.exec(text.trim().replace(/[\s\u00a0\u2009\u202f'’_]/g, ""));
  if (!match)
    return fail(
      text.trim() === ""
        ? "Type a size, like 4 TB."
        : `"${text.trim()}" is not a size. Write it like 4 TB, 3.6 TiB or 4000787030016.`,
    );
  const [, digits = "", suffix = ""] = match;
  const power = POWERS.get(suffix.toLowerCase());
  if (!power) return fail(`"${suffix}" is not a unit of size. Use MB, GB, TB, MiB, GiB, TiB, or bytes without a unit.`);
  const number = readNumber(digits, power.unit);
  if (typeof number === "string") return fail(number);
  if (!/^\d+$/.test(number.whole) || !/^\d*$/.test(number.fraction)) return fail(`"${digits}" is not a number.`);
  const scale = 10n ** BigInt(number.fraction.length);
  const scaled = BigInt(number.whole + number.fraction) * power.factor;
  const exact = (scaled + scale / 2n) / scale;
  if (exact > BigInt(Number.MAX_SAFE_INTEGER)) return fail(`${text.trim()} is more than Cortijo can count (9000 TB).`);
  return {
    ok: true,
    size: { kind: power.kind, bytes: Number(exact), unit: power.unit, decimals: number.fraction.length },
  };
}
