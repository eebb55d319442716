import type { Bytes } from "../bytes/bytes";
import { formatBytes } from "../bytes/formatBytes";
import type { BoxRules } from "../document/plan";

/**
 * The figure that the box's own screen will show for a size.
 *
 * @example boxScreen(12_000_138_625_024, { sizesShown: "binary-printed-as-decimal" }) // "10.91 TB"
 */
export function boxScreen(bytes: Bytes, rules: Pick<BoxRules, "sizesShown">): string {
  switch (rules.sizesShown) {
    case "decimal":
      return formatBytes(bytes, "TB");
    case "binary":
      return formatBytes(bytes, "TiB");
    case "binary-printed-as-decimal":
      return formatBytes(bytes, "TiB").replace(/([KMGTP])iB$/, "$1B");
  }
}
