import type { Bytes } from "@/core/bytes/bytes";
import { USABLE_CAUSES, type LedgerCause, type LedgerEntry } from "@/core/ledger/ledger";

/** One bar of the waterfall: from `base` upwards by `bytes`. `total` bars stand on the ground. */
export interface WaterfallBar {
  cause: LedgerCause | "all" | "usable";
  base: Bytes;
  bytes: Bytes;
}

/**
 * The bars of the waterfall: all drives, then each cause hanging below what was left before it, then what is usable,
 * then, with volumes, what becomes of that. The figures are the ledger's own.
 *
 * @example waterfallBars([{ cause: "parity", bytes: 4, … }, { cause: "unassigned", bytes: 8, … }], false)
 * // all 0+12, parity 8+4, usable 0+8
 */
export function waterfallBars(entries: readonly LedgerEntry[], withVolumes: boolean): WaterfallBar[] {
  const total = entries.reduce((sum, entry) => sum + entry.bytes, 0);
  const bars: WaterfallBar[] = [{ cause: "all", base: 0, bytes: total }];
  let left = total;
  for (const entry of entries.filter((each) => !USABLE_CAUSES.has(each.cause))) {
    left -= entry.bytes;
    bars.push({ cause: entry.cause, base: left, bytes: entry.bytes });
  }
  bars.push({ cause: "usable", base: 0, bytes: left });
  if (!withVolumes) return bars;
  for (const entry of entries.filter((each) => USABLE_CAUSES.has(each.cause))) {
    left -= entry.bytes;
    bars.push({ cause: entry.cause, base: left, bytes: entry.bytes });
  }
  return bars;
}
