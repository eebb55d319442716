import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId } from "../document/plan";
import { roomOf } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import type { Layout } from "../layouts/layout";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { firstFillOf } from "../speeds/firstFill";
import type { Hours } from "../time/hours";

/** What one layout would come to with some drives on a box. */
export interface LayoutChoice {
  layout: Layout;
  /** Whether the box's rules offer it. */
  offered: boolean;
  /** What it would hold, or why it cannot be made. */
  outcome:
    | { possible: true; usableBytes: Bytes; tolerance: number; firstFill: Hours | null }
    | { possible: false; reason: string };
}

function outcomeOf(layout: Layout, drives: readonly Drive[], rules: BoxRules): LayoutChoice["outcome"] {
  const reason = wrongCount(layout, drives.length, rules);
  if (reason) return { possible: false, reason };
  const bands = layout.layOut(
    drives.map((drive) => roomOf(drive, rules)),
    { arrayFormat: rules.arrayFormat, options: {} },
  );
  if (bands.length === 0) return { possible: false, reason: "The smallest drive has no space left for it." };
  return {
    possible: true,
    usableBytes: usableOf(bands),
    tolerance: toleranceOf(bands),
    firstFill: firstFillOf(layout, bands, drives, rules)?.hours ?? null,
  };
}

/**
 * Every layout of the catalogue with what it would hold on these drives; those that the box offers first.
 *
 * @param joining drives that would come in with a layout
 * @example layoutChoices(threeOf4TB, rulesOf({ set: "classic-raid" }))[0]
 * // { layout: mirror, offered: true, outcome: { possible: true, usableBytes: 4 000 786 153 472, tolerance: 2 } }
 */
export function layoutChoices(
  drives: readonly Drive[],
  rules: BoxRules,
  joining: (layout: LayoutId) => readonly Drive[] = () => [],
): LayoutChoice[] {
  const choices = layouts.map((layout) => ({
    layout,
    offered: rules.layouts.includes(layout.id),
    outcome: outcomeOf(layout, [...drives, ...joining(layout.id)], rules),
  }));
  return [...choices.filter((choice) => choice.offered), ...choices.filter((choice) => !choice.offered)];
}
