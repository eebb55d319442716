import type { Bytes } from "../bytes/bytes";
import { SOLD_GIGABYTES } from "../bytes/nominalBytes";
import { parseSize } from "../bytes/parseSize";
import type { Bus, Medium, NewDrive } from "../document/plan";
import { ownValue } from "../records/ownValue";
import { driveBytes } from "./typedDrive";
import { usualDrive } from "./usualDrive";

/** Some equal drives that were typed in one go. */
export interface TypedDrives {
  count: number;
  bytes: Bytes;
  medium: Medium;
  bus: Bus;
}

/** `assumed` where no unit was typed at all, so that terabytes were taken. */
export type TypedDrivesResult = { ok: true; drives: TypedDrives[]; assumed?: "TB" } | { ok: false; message: string };

const SORTS: Record<string, Partial<{ medium: Medium; bus: Bus }>> = {
  hdd: { medium: "hdd" },
  sata: { bus: "sata" },
  sas: { bus: "sas" },
  usb: { bus: "usb" },
  ssd: { medium: "ssd" },
  flash: { medium: "ssd" },
  nvme: { medium: "ssd", bus: "nvme" },
};

/** The most drives that may be typed at once: more is a slip of the finger. */
export const MOST_TYPED_DRIVES = 48;

const MOST_TYPED = 2000;
/** A drive below this is a memory stick or a slip in the unit. */
const SMALLEST_DRIVE = 1e9;
/** A bare number up to this is taken as terabytes, one from `SMALLEST_DRIVE` on as bytes; between them nobody knows. */
const MOST_TERABYTES = 100;

/** A number of a drive's size or count, a unit, a sign for "so many of", a word on its sort, or what parts drives. */
type Token = { kind: "number" | "unit" | "times" | "sort" | "gap"; text: string };

const PATTERNS: readonly [Token["kind"], RegExp][] = [
  // A count of bytes, its digits grouped in threes; else digits with a point or a comma.
  ["number", /\d{1,3}(?:[ \u00a0\u2009\u202f'’_]\d{3}){3,}(?!\d)|\d+(?:[.,]\d+)?/y],
  ["unit", /(?:[kmgtp]i?b?|bytes?|b)(?![a-z\d])/iy],
  ["times", /[×*]|x(?![a-z])|(?:drives?|disks?)?\s*\bof(?![a-z])/iy],
  ["sort", /(?:hdd|sata|sas|usb|ssd|flash|nvme)s?(?![a-z])/iy],
  ["gap", /[,;+&\n]|(?:and|drives?|disks?)(?![a-z])/iy],
];

/** The tokens of what was typed, or the first piece of it that is none. */
function tokensOf(text: string): Token[] | string {
  const tokens: Token[] = [];
  let at = 0;
  const blank = /[^\S\n]+/y;
  while (at < text.length) {
    blank.lastIndex = at;
    if (blank.test(text)) {
      at = blank.lastIndex;
      continue;
    }
    const found = PATTERNS.find(([, pattern]) => {
      pattern.lastIndex = at;
      return pattern.test(text);
    });
    if (!found) return text.slice(at).split(/[\s,;+]/)[0] ?? text;
    const [kind, pattern] = found;
    tokens.push(...parted({ kind, text: text.slice(at, pattern.lastIndex) }, text, pattern.lastIndex));
    at = pattern.lastIndex;
  }
  return tokens;
}

/**
 * "1,5" is one and a half, or two drives: one number where that is a size that drives are sold in, or a figure as
 * boxes show it (two digits and more), and no other comma parts anything.
 *
 * @param end where the token ends in the text
 */
function parted(token: Token, text: string, end: number): Token[] {
  const [whole = "", fraction] = token.text.split(",");
  if (token.kind !== "number" || fraction === undefined) return [token];
  const binary = /^\s*[kmgtp]i/i.test(text.slice(end));
  const sold = SOLD_GIGABYTES.includes(Number(`${whole}.${fraction}`) * 1000);
  const alone = text.split(",").length === 2 && (sold || binary);
  return alone || (binary && fraction.length > 1)
    ? [token]
    : [
        { kind: "number", text: whole },
        { kind: "gap", text: "," },
        { kind: "number", text: fraction },
      ];
}

/** A drive as it was typed: how many, its number, its unit where it has one of its own, what sort it is. */
interface Part {
  count: string;
  number: string;
  unit: string | null;
  sorts: string[];
}

/** Goes through tokens: gives the next one's text where it is of a kind. */
type Next = (kind: Token["kind"]) => string | null;

/** One drive, or several alike, from its number on; or a sentence that says what is missing. */
function partFrom(first: string, next: Next): Part | string {
  const counted = next("times") !== null;
  const number = counted ? next("number") : first;
  if (number === null) return `What size do the ${first} drives have? Write it like ${first} × 4 TB.`;
  const unit = next("unit");
  const asked = !counted && next("times") !== null;
  const after = asked ? next("number") : null;
  if (asked && after === null) return `How many drives of ${first} ${unit ?? "TB"}? Write it like 2 × 4 TB.`;
  const sorts: string[] = [];
  for (let sort = next("sort"); sort !== null; sort = next("sort")) sorts.push(sort.toLowerCase());
  return { count: counted ? first : (after ?? "1"), number, unit, sorts };
}

/** The drives of the tokens, each beginning with a number; or a sentence that says what stands where none can. */
function partsOf(tokens: readonly Token[]): Part[] | string {
  const parts: Part[] = [];
  let at = 0;
  const next: Next = (kind) => {
    const token = tokens[at];
    if (token?.kind !== kind) return null;
    at += 1;
    return token.text;
  };
  while (at < tokens.length) {
    if (next("gap") !== null) continue;
    const first = next("number");
    if (first === null) return `"${tokens[at]?.text ?? ""}" has no size. Write it like 4 TB or 6 × 4 TB.`;
    const part = partFrom(first, next);
    if (typeof part === "string") return part;
    parts.push(part);
  }
  return parts;
}

/** A part with its unit: its own, else that of the next one that has any ("4, 4 and 8 TB"), else of the one before. */
function unitOf(parts: readonly Part[], i: number): string | null {
  const own = parts[i];
  if (!own) return null;
  if (own.unit !== null) return own.unit;
  if (Number(own.number.replaceAll(/[^\d]/g, "")) >= SMALLEST_DRIVE) return "B";
  return (
    parts.slice(i).find((part) => part.unit !== null)?.unit ??
    parts.slice(0, i).findLast((part) => part.unit !== null)?.unit ??
    null
  );
}

function drivesOf(part: Part, unit: string): TypedDrives | string {
  const said = `${part.number} ${unit}`;
  if (!/^\d{1,4}$/.test(part.count) || Number(part.count) < 1) return `"${part.count} × ${said}" adds no drive.`;
  const kind = part.sorts.reduce<{ medium: Medium; bus: Bus }>(
    (soFar, word) => ({ ...soFar, ...(ownValue(SORTS, word) ?? ownValue(SORTS, word.replace(/s$/, ""))) }),
    { medium: "hdd", bus: "sata" },
  );
  const parsed = parseSize(said);
  if (!parsed.ok) return parsed.message;
  const bytes = driveBytes(parsed.size, kind.medium);
  if (bytes < SMALLEST_DRIVE) return `"${said}" is less than 1 GB. Did you leave out the unit? Write it like 4 TB.`;
  return { count: Number(part.count), bytes, ...kind };
}

/**
 * Reads drives as people type them: "4, 4, 8 and 12 TB", "6 × 4 TB", "2x8TB + 12 TB", "4 4 8", "two lines", each with
 * what sort it is where that is said: hdd (if nothing is), ssd, nvme, sas, usb. Commas, spaces, semicolons, "+", "and"
 * and new lines part drives; a unit holds for the numbers before it; without any, terabytes are taken.
 *
 * @returns the drives, or a sentence that says what is wrong; it never throws
 * @example typedDrives("4, 4 and 8 TB") // { ok: true, drives: [{ count: 1, bytes: 4 000 787 030 016, … }, …] }
 */
export function typedDrives(text: string): TypedDrivesResult {
  const fail = (message: string) => ({ ok: false, message }) as const;
  if (text.length > MOST_TYPED) return fail("That is too long to be typed drives. Bring the list in as a file.");
  const tokens = tokensOf(text);
  if (typeof tokens === "string") return fail(`"${tokens}" is not a drive. Write drives like 4 TB or 6 × 4 TB.`);
  const parts = partsOf(tokens);
  if (typeof parts === "string") return fail(parts);
  if (parts.length === 0) return fail("Type the drives you have, like 4, 4 and 8 TB.");
  const drives: TypedDrives[] = [];
  let assumed = false;
  for (const [i, part] of parts.entries()) {
    const unit = unitOf(parts, i);
    if (unit === null && Number(part.number.replace(",", ".")) > MOST_TERABYTES)
      return fail(`${part.number} of what? Write its unit, like ${part.number} GB.`);
    assumed ||= unit === null;
    const read = drivesOf(part, unit ?? "TB");
    if (typeof read === "string") return fail(read);
    drives.push(read);
  }
  const total = drives.reduce((sum, each) => sum + each.count, 0);
  if (total > MOST_TYPED_DRIVES)
    return fail(`That would add ${total} drives. Add at most ${MOST_TYPED_DRIVES} at once.`);
  return assumed ? { ok: true, drives, assumed: "TB" } : { ok: true, drives };
}

/**
 * Typed drives as a plan keeps them: healthy, with the sectors that drives of their kind have by default.
 *
 * @example newDrivesOf({ count: 2, bytes: 4_000_787_030_016, medium: "hdd", bus: "sata" }).length // 2
 */
export function newDrivesOf({ count, bytes, medium, bus }: TypedDrives): NewDrive[] {
  return Array.from({ length: count }, () => usualDrive({ bytes, medium, bus }));
}
