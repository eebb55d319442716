import fc from "fast-check";
import { GLOSSARY } from "./glossary";
import { termsIn, type Term } from "./terms";

const wordOf = (piece: ReturnType<typeof termsIn>[number]) => (typeof piece === "string" ? piece : piece.word);

test("a sentence keeps its words, and each word of the trade is marked once", () => {
  const said =
    "A rebuild of RAID 5 reads the parity; the parity of a hot spare, 3.64 TiB, is rebuilt. Mirrored " +
    "paritying. Stripes.";
  const marked = termsIn(said).filter((piece) => typeof piece !== "string");
  expect(marked.map(wordOf)).toEqual(["rebuild", "RAID 5", "parity", "hot spare", "TiB", "Stripes"]);
  const words = fc.array(fc.constantFrom(...Object.keys(GLOSSARY), "drives", "bay 2", ".", " ", "RAID 6", "TiBs"));
  fc.assert(
    fc.property(words, (list) => {
      const text = list.join(" ");
      const pieces = termsIn(text);
      expect(pieces.map(wordOf).join("")).toBe(text);
      const terms = pieces.flatMap((piece) => (typeof piece === "string" ? [] : piece.term));
      expect(new Set(terms).size).toBe(terms.length);
    }),
  );
});

test("every term marks itself, and no explanation is explained by its own word alone", () => {
  for (const [term, says] of Object.entries(GLOSSARY)) {
    const [piece] = termsIn(term === "partition table" ? "GPT" : term);
    expect(piece).toMatchObject({ term: term as Term });
    expect(says.length).toBeGreaterThan(40);
  }
});
