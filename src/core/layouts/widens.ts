import type { Layout } from "./layout";
import type { LayoutId, BoxRules } from "../document/plan";

/** Layouts of which a pool has only one group, that takes any further drive: independent drives, and chunks. */
const ALWAYS: ReadonlySet<LayoutId> = new Set([
  "single",
  "span",
  "parity-drive-1",
  "parity-drive-2",
  "copies-2",
  "copies-3",
  "chunk-parity",
]);

/** Whether a further drive joins what is there, instead of forming a group with others. */
export function takesAnyDrive(layout: Pick<Layout, "id">): boolean {
  return ALWAYS.has(layout.id);
}

/**
 * Whether a group of a layout can take one more drive on a box. Mirrors become a copy more of the same.
 *
 * @example widensByDrive(layoutOf("raid5"), { widening: "further-group" }) // false
 */
export function widensByDrive(layout: Pick<Layout, "id">, rules: Pick<BoxRules, "widening">): boolean {
  // Its drives have a part each: one more would have to be laid behind them by hand.
  if (layout.id === "spanned-mirror") return false;
  return takesAnyDrive(layout) || rules.widening !== "further-group";
}
