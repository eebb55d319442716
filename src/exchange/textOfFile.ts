export type FileText = { ok: true; text: string } | { ok: false; message: string };

const decoded = (encoding: string, bytes: Uint8Array) => new TextDecoder(encoding, { fatal: true }).decode(bytes);

/** UTF-16 without a mark: every second byte of what is written in Latin letters is 0. */
function unmarkedUtf16(bytes: Uint8Array): "utf-16le" | "utf-16be" | null {
  const seen = bytes.subarray(0, 2000);
  const zeros = (from: 0 | 1) => seen.filter((byte, i) => i % 2 === from && byte === 0).length / (seen.length / 2);
  if (seen.length < 4) return null;
  return zeros(1) > 0.6 && zeros(0) < 0.1 ? "utf-16le" : zeros(0) > 0.6 && zeros(1) < 0.1 ? "utf-16be" : null;
}

function encodingOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return "utf-16le";
  if (a === 0xfe && b === 0xff) return "utf-16be";
  return unmarkedUtf16(bytes) ?? "utf-8";
}

/**
 * The text of a file: UTF-8 as a rule, UTF-16 as some systems save it, or, where it is no UTF-8, the letters of western
 * Europe as older programs write them (Windows-1252, of which Latin-1 is a part).
 *
 * @returns the text without a byte order mark, or that it is no text
 * @example textOfFile(new TextEncoder().encode("Córdoba").buffer) // { ok: true, text: "Córdoba" }
 */
export function textOfFile(content: ArrayBuffer): FileText {
  const bytes = new Uint8Array(content);
  const encoding = encodingOf(bytes);
  try {
    return { ok: true, text: decoded(encoding, bytes) };
  } catch {
    const isText = encoding === "utf-8" && !bytes.subarray(0, 2000).includes(0);
    if (isText) return { ok: true, text: decoded("windows-1252", bytes) };
    const message =
      "This file is no " +
      `text${encoding === "utf-8" ? "" : `, though it begins as ${encoding.toUpperCase()} does`}. Save it as ` +
      "text in UTF-8, and choose it again.";
    return { ok: false, message };
  }
}
