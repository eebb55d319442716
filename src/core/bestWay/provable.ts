import { layoutsOf } from "./bounds";
import type { Instance } from "./instance";

/**
 * Whether the rules by which ways are left out are proved for an instance: hybrids, single and double parity, pools of
 * mirrored pairs and copies of chunks, each staying what it is. For the others what is found is good, not proved.
 *
 * @example isProvable({ …instance, layouts: ["parity-drive-1"] }) // false: data drives are no larger than parity
 */
export function isProvable(instance: Instance): boolean {
  const layouts = layoutsOf(instance);
  const [layout] = layouts;
  if (!layout || layouts.length > 1 || instance.groups.length === 0) return false;
  const { copies, data, parity } = layout.stripe({});
  if (layout.cutsAtSizes) return instance.groups.length === 1;
  if (layout.chunked) return data === 1 && parity === 0;
  if (copies === "all") return instance.groups.every(({ drives }) => drives.length === 2);
  // Triple parity and striped mirrors follow the same rules, but have not been tried against every way.
  return instance.groups.length === 1 && copies === 1 && parity > 0 && parity <= 2 && layout.countsSmallest === true;
}
