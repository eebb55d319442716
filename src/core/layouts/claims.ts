import type { BoxRules } from "../document/plan";
import type { Layout } from "./layout";

/**
 * How the space of larger drives comes into use in a group of a layout on a box. Chunks lie on each drive by itself,
 * so that where a box does not take the space in by itself each drive has a claim of its own, whatever it does for
 * arrays.
 *
 * @example claimingFor(layoutOf("copies-2"), { claiming: "whole-group" }) // "per-drive"
 */
export const claimingFor = (
  { chunked }: Pick<Layout, "chunked">,
  { claiming }: Pick<BoxRules, "claiming">,
): BoxRules["claiming"] => (chunked && claiming === "whole-group" ? "per-drive" : claiming);
