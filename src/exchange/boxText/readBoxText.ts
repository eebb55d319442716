import type { PrintedBox, PrintedDrive } from "@/core/reading/printedBox";
import { counted } from "@/core/words/counted";
import { cleanText } from "../inventory/blockDevice";
import { INVENTORY_COMMAND } from "../inventory/command";
import { graphOf, type DeviceGraph } from "../inventory/deviceGraph";
import { inventoryOf, MOST_INVENTORY_CHARACTERS, readDevices, type Inventory } from "../inventory/readLsblk";
import { ARRAYS_COMMAND } from "./command";
import { printedArrays } from "./printedArrays";
import { printedVolumes } from "./printedVolumes";
import { isArraysText, readArrays, type ArrayText } from "./readArrays";
import { isCutOff, splitPaste } from "./splitPaste";

/** The most that is read at once, in characters. */
export const MOST_BOX_CHARACTERS = MOST_INVENTORY_CHARACTERS;

export type BoxTextResult = { ok: true; printed: PrintedBox; inventory: Inventory } | { ok: false; message: string };

/** What the array's own label says of the box's name: "box:0". */
function hostOf(graph: DeviceGraph): string {
  for (const { device } of graph.values()) {
    const label = cleanText(device.label);
    if (cleanText(device.fstype) === "linux_raid_member" && /^[^:]+:/.test(label)) return label.replace(/:.*$/, "");
  }
  return "";
}

/** What is said of texts that are there twice, cut off, or lacking. */
function aboutTexts(lists: number, hasArraysText: boolean, graph: DeviceGraph, arrays: readonly ArrayText[]): string[] {
  const unlisted = arrays.filter(({ isContainer }) => isContainer).map(({ name }) => name);
  const hasArrays = [...graph.values()].some(({ kind }) => kind === "RAID array");
  return [
    ...(lists > 1
      ? [`The text holds ${counted(lists, "list of devices", "lists of devices")}: the last one counts.`]
      : []),
    ...(!hasArraysText && hasArrays
      ? [
          "Which drives of an array hold its data, stand by as spares or have failed stands only in the " +
            `kernel's text. Paste the output of ${ARRAYS_COMMAND} too.`,
        ]
      : []),
    ...unlisted.map((name) => `${name} is a container in a maker's own format, and is left out.`),
  ];
}

/**
 * Reads what a box has printed about itself: the list of devices, and the kernel's text of arrays where it is there
 * too, in any order.
 *
 * @returns what is printed, or a sentence that says what is wrong; it never throws
 * @example readBoxText(await file.text()).printed.arrays[0].level // "raid5"
 */
export function readBoxText(text: string): BoxTextResult {
  if (text.length > MOST_BOX_CHARACTERS)
    return {
      ok: false,
      message: "This is more than 8 MB, far more than a box prints. Choose the files with its output.",
    };
  const { lists, rest } = splitPaste(text.replace(/^\uFEFF/, ""));
  const arrays = readArrays(rest);
  const hasArraysText = arrays.length > 0 || isArraysText(rest);
  const list = lists.at(-1);
  if (list === undefined && hasArraysText)
    return {
      ok: false,
      message:
        `This is the kernel's text of arrays, without the list of devices. Run ${INVENTORY_COMMAND} as well and ` +
        "paste both.",
    };
  const read = readDevices(list ?? text);
  if (!read.ok && list !== undefined && isCutOff(list))
    return {
      ok: false,
      message: "The list of devices ends in its middle. Copy everything from the first { to the last }.",
    };
  if (!read.ok) return read;
  const graph = graphOf(read.devices);
  const inventory = inventoryOf(graph);
  const drives = inventory.found.flatMap(({ name, wwn, drive }): PrintedDrive[] =>
    drive.ok ? [{ name, wwn, drive: drive.value }] : [],
  );
  const refused = inventory.found.flatMap(({ name, drive }) =>
    drive.ok ? [] : [`${name} is left out. ${drive.reason}`],
  );
  return {
    ok: true,
    inventory,
    printed: {
      host: hostOf(graph),
      drives,
      arrays: printedArrays(graph, arrays),
      volumes: printedVolumes(graph),
      knowsContents: inventory.knowsContents,
      notMadeOut: [...aboutTexts(lists.length, hasArraysText, graph, arrays), ...refused],
    },
  };
}
