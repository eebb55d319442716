export type SwatchKind = "data" | "copies" | "parity" | "spare" | "cache" | "log" | "idle" | "reserve" | "lost";

/**
 * A small sample of a terrace pattern, for legends and the ledger.
 *
 * @param mark a path of 14 by 14 that tells it from others of its pattern
 */
export function Swatch({ kind, mark }: { kind: SwatchKind; mark?: string | undefined }) {
  return (
    <svg width="14" height="14" aria-hidden="true" className="shrink-0">
      <PatternRect kind={kind} x={0.5} y={0.5} width={13} height={13} />
      {mark && <path d={mark} fill="none" stroke="var(--ink)" strokeWidth="1.5" />}
    </svg>
  );
}

/** A rectangle in one of the terrace patterns: told apart by pattern as well as hue. */
export function PatternRect({
  kind,
  x,
  y,
  width,
  height,
}: {
  kind: SwatchKind;
  x: number;
  y: number;
  width: number;
  height: number;
}) {
  const box = { x, y, width: Math.max(0, width), height: Math.max(0, height) };
  switch (kind) {
    case "data":
      return <rect {...box} fill="var(--data)" />;
    case "copies":
      return <rect {...box} fill="url(#terrace-copies)" stroke="var(--data)" strokeWidth="0.75" />;
    case "parity":
      return <rect {...box} fill="url(#terrace-parity)" stroke="var(--parity)" strokeWidth="0.75" />;
    case "spare":
      return <rect {...box} fill="none" stroke="var(--data)" strokeWidth="1.5" />;
    case "cache":
      return <rect {...box} fill="url(#terrace-cache)" stroke="var(--data)" strokeWidth="1" />;
    case "log":
      return <rect {...box} fill="url(#terrace-log)" stroke="var(--data)" strokeWidth="1" />;
    case "idle":
      return <rect {...box} fill="none" stroke="var(--idle-edge)" strokeWidth="1" strokeDasharray="3 3" />;
    case "reserve":
      return <rect {...box} fill="var(--reserve)" />;
    case "lost":
      return <rect {...box} fill="url(#terrace-lost)" />;
  }
}

/** The patterns themselves; stands once on a page that shows any. */
export function TerracePatterns() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      <defs>
        <pattern id="terrace-copies" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--copies-ground)" />
          <circle cx="2" cy="2" r="1.25" fill="var(--data)" />
          <circle cx="5.5" cy="5.5" r="1.25" fill="var(--data)" />
        </pattern>
        <pattern id="terrace-parity" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--parity-ground)" />
          <rect width="2.5" height="7" fill="var(--parity)" />
        </pattern>
        <pattern id="terrace-cache" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect x="2.5" width="1" height="6" fill="var(--data)" />
        </pattern>
        <pattern id="terrace-log" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect y="2.5" width="6" height="1" fill="var(--data)" />
        </pattern>
        {/* Dark with light crosses: told from the light stripes of parity without any colour. */}
        <pattern id="terrace-lost" width="14" height="14" patternUnits="userSpaceOnUse">
          <rect width="14" height="14" fill="var(--geranium)" />
          <path d="M4 4l6 6m0-6l-6 6" stroke="var(--on-geranium)" strokeWidth="1.5" />
        </pattern>
      </defs>
    </svg>
  );
}
