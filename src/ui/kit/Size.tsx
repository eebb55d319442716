"use client";

import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Bytes } from "@/core/bytes/bytes";
import { useUnit } from "../preferences/preferences";

/** A byte count in the chosen unit; the exact bytes show on hovering. */
export function Size({ bytes }: { bytes: Bytes }) {
  const [unit] = useUnit();
  return (
    <span title={formatExactBytes(bytes)} className="whitespace-nowrap">
      {formatBytes(bytes, unit)}
    </span>
  );
}
