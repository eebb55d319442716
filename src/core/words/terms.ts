/** The words of the trade that are explained wherever they stand, each with the forms that it takes in a sentence. */
const FORMS = {
  RAID: "RAID(?: \\d+)?",
  mirror: "mirrors?",
  stripe: "stripe[sd]?",
  parity: "parity",
  hybrid: "hybrids?",
  band: "bands?",
  chunk: "chunks?",
  degraded: "degraded",
  rebuild: "rebuil(?:d|t|ding|ds)",
  scrub: "scrub",
  "hot spare": "hot spares?",
  "first fill": "first fill",
  "self-test": "self-tests?",
  SMART: "SMART",
  "worn-out sectors": "worn-out sectors?",
  "cannot be read": "cannot be read",
  TiB: "TiB|binary units",
  shingled: "shingled",
  "logical sector": "logical sectors?",
  "partition table": "GPT|MBR",
  metadata: "metadata",
  volume: "volumes?",
  "file system": "file systems?",
  root: "root",
  UPS: "UPS",
  "read cache": "read cache",
  "write log": "write[ -]log",
  "landing place": "landing places?",
  snapshot: "snapshots?",
  "replacement margin": "replacement margin",
} as const;

export type Term = keyof typeof FORMS;

const ANY = new RegExp(
  Object.values(FORMS)
    // A word can begin the sentence.
    .map((forms) => `(\\b(?:${forms.replace(/^[a-z]/, (first) => `[${first}${first.toUpperCase()}]`)})\\b)`)
    .join("|"),
  "g",
);
const TERMS = Object.keys(FORMS) as Term[];

/** A piece of a sentence: plain text, or a word that has an explanation. */
export type Piece = string | { term: Term; word: string };

/**
 * A sentence in pieces, the first mention of each word of the trade for itself.
 *
 * @example termsIn("A rebuild reads the parity.")
 * // ["A ", { term: "rebuild", word: "rebuild" }, " reads the ", { term: "parity", word: "parity" }, "."]
 */
export function termsIn(text: string): Piece[] {
  const pieces: Piece[] = [];
  const seen = new Set<Term>();
  let end = 0;
  for (const match of text.matchAll(ANY)) {
    const term = TERMS[match.slice(1).findIndex((group) => group !== undefined)];
    if (!term || seen.has(term)) continue;
    seen.add(term);
    if (match.index > end) pieces.push(text.slice(end, match.index));
    pieces.push({ term, word: match[0] });
    end = match.index + match[0].length;
  }
  if (end < text.length) pieces.push(text.slice(end));
  return pieces;
}
