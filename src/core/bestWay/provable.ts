import { layoutsOf } from "./bounds";
import type { Layout } from "../layouts/layout";
import type { Aim, Instance } from "./instance";

/** Whether how long a change exposes data is known beforehand: not where only what is used by then is copied. */
const knowsHours = ({ rules }: Instance, layout: Layout): boolean =>
  !layout.chunked && rules.rebuilding !== "used-only";

/**
 * Whether the rules by which ways are left out are proved for an instance: hybrids, single and double parity, pools of
 * mirrored pairs and copies of chunks, each staying what it is. For the others what is found is good, not proved.
 *
 * @param aim what was made least
 * @example isProvable({ …instance, layouts: ["parity-drive-1"] }) // false: data drives are no larger than parity
 */
export function isProvable(instance: Instance, aim: Aim = "money"): boolean {
  const layouts = layoutsOf(instance);
  const [layout] = layouts;
  if (!layout || layouts.length > 1 || instance.groups.length === 0) return false;
  if (aim === "hours" && !knowsHours(instance, layout)) return false;
  return keepsRules(layout, instance.groups);
}

/** Whether ways of a pool of a layout were held to all ways that there are. */
function keepsRules(layout: Layout, groups: Instance["groups"]): boolean {
  const { copies, data, parity } = layout.stripe({});
  if (layout.cutsAtSizes) return groups.length === 1;
  if (layout.chunked) return data === 1 && parity === 0;
  if (copies === "all") return groups.every(({ drives }) => drives.length === 2);
  // Triple parity and striped mirrors follow the same rules, but have not been tried against every way.
  return groups.length === 1 && copies === 1 && parity > 0 && parity <= 2 && layout.countsSmallest === true;
}
