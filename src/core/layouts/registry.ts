import type { LayoutId } from "../document/plan";
import { chunkParity, threeCopies, twoCopies } from "./chunks";
import { hybridOne, hybridTwo } from "./hybrid";
import type { Layout } from "./layout";
import { mirror } from "./mirror";
import { doubleParity, singleParity, tripleParity } from "./parity";
import { oneParityDrive, twoParityDrives } from "./parityDrive";
import { separateDrives, span } from "./separateDrives";
import { mirrorOntoOne } from "./mirrorOntoOne";
import { stripe } from "./stripe";
import { stripedMirrors } from "./stripedMirrors";

/** Every layout that Cortijo knows, in the order in which menus list them. A new family is a file and a line here. */
export const layouts: readonly Layout[] = [
  ...[mirror, stripedMirrors],
  ...[singleParity, doubleParity, tripleParity],
  ...[hybridOne, hybridTwo],
  ...[oneParityDrive, twoParityDrives],
  ...[twoCopies, threeCopies, chunkParity],
  ...[mirrorOntoOne],
  ...[separateDrives, span, stripe],
];

const byId = new Map(layouts.map((layout) => [layout.id, layout]));

/**
 * The layout of an id.
 *
 * @throws RangeError for an id that is not in the catalogue, which the plan schema rules out
 * @example layoutOf("raid5").name // "single parity"
 */
export function layoutOf(id: LayoutId): Layout {
  const layout = byId.get(id);
  if (!layout) throw new RangeError(`No layout is called ${id}.`);
  return layout;
}
