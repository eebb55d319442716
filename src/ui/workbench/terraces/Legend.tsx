import { Swatch, type SwatchKind } from "../../kit/Swatch";

const WORDS: Record<SwatchKind, string> = {
  data: "your data",
  copies: "mirror copies",
  parity: "parity",
  spare: "hot spare",
  cache: "read cache",
  log: "write log",
  idle: "unused",
  reserve: "kept by the box",
  lost: "lost",
};

/** What the patterns of the terraces mean; only those that are in the picture. */
export function Legend({ kinds }: { kinds: readonly SwatchKind[] }) {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-[0.87rem] text-soft" aria-label="What the patterns mean">
      {kinds.map((kind) => (
        <li key={kind} className="flex items-center gap-1.5">
          <Swatch kind={kind} />
          {WORDS[kind]}
        </li>
      ))}
    </ul>
  );
}
