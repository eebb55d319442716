import { layoutOfLevel, sharesOf } from "@/core/reading/levels";
import { layouts } from "@/core/layouts/registry";
import type { PrintedArray, PrintedMember, Running } from "@/core/reading/printedBox";
import { cleanText, wholeNumber } from "../inventory/blockDevice";
import { diskOfPartition, groundsOf, standingOn, type DeviceGraph, type Node } from "../inventory/deviceGraph";
import { mountsOf, SYSTEM_MOUNTS } from "../inventory/readLsblk";
import type { ArrayDevice, ArrayText } from "./readArrays";

const SECTOR = 512;

/** How often a level keeps each block where the text does not say: striped mirrors, twice. */
const copiesOf = (level: string | null, printed: number | null): number | null =>
  layoutOfLevel(level, null)?.chooses === "pairs" ? (printed ?? 2) : null;

/** The kernel's name of single parity. */
const SINGLE_PARITY =
  layouts.find((layout) => layout.kernelLevel && layout.stripe({}).parity === 1)?.kernelLevel ?? null;

/** The drive, or slice of one, that an array calls a device. */
function memberOf(graph: DeviceGraph, name: string): PrintedMember {
  const node = graph.get(name);
  if (!node)
    return {
      drive: graph.has(diskOfPartition(name) ?? "") ? diskOfPartition(name) : null,
      device: name,
      bytes: null,
      start: 0,
    };
  const [disk] = groundsOf(node, ({ kind }) => kind === "disk").grounds;
  const start = wholeNumber(node.device.start) ?? 0;
  return {
    drive: disk?.name ?? null,
    device: name,
    bytes: wholeNumber(node.device.size),
    start: disk === node ? 0 : start * SECTOR,
  };
}

/** The mark of an array on what is a member of it; empty for anything else. */
const markOf = ({ device }: Node): string =>
  cleanText(device.fstype) === "linux_raid_member" ? cleanText(device.uuid) : "";

/** What carries the marks of an array and no array, by the marks. */
function unusedByMark(graph: DeviceGraph): Map<string, string[]> {
  const unused = new Map<string, string[]>();
  for (const node of graph.values()) {
    const mark = node.children.size === 0 ? markOf(node) : "";
    if (mark) unused.set(mark, [...(unused.get(mark) ?? []), node.name]);
  }
  return unused;
}

/** What an array is made out from. */
interface Source {
  graph: DeviceGraph;
  unused: ReadonlyMap<string, string[]>;
}

/** What carries the marks of an array and is no part of it: taken out of it, or never put together with it. */
function strangersOf({ graph, unused }: Source, members: readonly string[]): string[] {
  const marks = new Set(members.flatMap((name) => graph.get(name) ?? []).map(markOf));
  return [...marks].flatMap((mark) => unused.get(mark) ?? []).filter((name) => !members.includes(name));
}

/** The system's own: what it starts from, and what it swaps to. */
const carriesSystem = (node: Node | undefined): boolean =>
  node !== undefined &&
  standingOn(node).some(
    ({ device }) => cleanText(device.fstype) === "swap" || mountsOf(device).some((mount) => SYSTEM_MOUNTS.test(mount)),
  );

interface Places {
  places: (ArrayDevice | null)[];
  filling: ArrayDevice[];
}

/**
 * Puts members into their places: a device's number is its place only as long as that is free, since one that came
 * later has a higher number; those left go to the places that are in sync first, then to the others, which are being
 * filled.
 */
function placed(members: readonly ArrayDevice[], pattern: string): Places {
  const places: (ArrayDevice | null)[] = [...pattern].map(() => null);
  const rest: ArrayDevice[] = [];
  for (const member of [...members].sort((a, b) => a.number - b.number)) {
    if (pattern[member.number] === "U" && !places[member.number]) places[member.number] = member;
    else rest.push(member);
  }
  const filling: ArrayDevice[] = [];
  for (const sign of ["U", "_"]) {
    for (let place = 0; place < pattern.length; place += 1) {
      if (pattern[place] !== sign || places[place]) continue;
      const next = rest.shift();
      if (!next) break;
      places[place] = next;
      if (sign === "_") filling.push(next);
    }
  }
  return { places, filling };
}

/** The parity's arrangements of double parity in which it is being made of single parity. */
const HALF_WAY = new Set([16, 17, 18, 19, 20]);

/** What a rewrite brings in, and from which level, as far as size and arrangement tell. */
function rewriteOf(
  text: ArrayText,
  { places, filling }: Places,
): { joining: ArrayDevice[]; levelBefore: string | null } {
  if (
    layoutOfLevel(text.level, null)?.stripe({}).parity === 2 &&
    text.algorithm !== null &&
    HALF_WAY.has(text.algorithm) &&
    filling.length > 0
  )
    return { joining: filling, levelBefore: SINGLE_PARITY };
  const layout = layoutOfLevel(text.level, null);
  const { running } = text;
  if (running?.kind !== "reshape" || !layout || !running.total) return { joining: [], levelBefore: null };
  const members = places.flatMap((member) => member ?? []).sort((a, b) => a.number - b.number);
  let before = places.length;
  while (before > 1 && sharesOf(layout, before) * running.total > text.bytes) before -= 1;
  return { joining: members.slice(before), levelBefore: null };
}

/** What is under way; of a rebuild that waits for other work the kernel prints that it is a sync. */
function workOf({ running }: ArrayText, { filling }: Places): Running | null {
  const isWaiting = running?.kind === "resync" && running.done === null && filling.length > 0;
  return running && isWaiting ? { ...running, kind: "recovery" } : running;
}

/** An array as the kernel's text and the list together tell of it. */
function arrayOf(source: Source, text: ArrayText): PrintedArray {
  const { graph } = source;
  const withRole = (role: ArrayDevice["role"]) => text.devices.filter((device) => device.role === role);
  const all = (devices: readonly (ArrayDevice | string)[]) =>
    devices.map((device) => memberOf(graph, typeof device === "string" ? device : device.name));
  const members = withRole("member");
  const stands: Places = text.places
    ? placed(members, text.places)
    : { places: [...members].sort((a, b) => a.number - b.number), filling: [] };
  const names = text.devices.map(({ name }) => name);
  const strangers = strangersOf(source, names);
  const { joining, levelBefore } = rewriteOf(text, stands);
  return {
    name: text.name,
    level: text.isActive ? text.level : null,
    metadata: text.metadata,
    bytes: text.isActive ? text.bytes : 0,
    places: text.isActive
      ? stands.places.map((device) => device && memberOf(graph, device.name))
      : all([...names, ...strangers]),
    filling: all(stands.filling.filter((device) => !joining.includes(device))),
    spares: text.isActive ? all(withRole("spare")) : [],
    failed: all(withRole("failed")),
    replacing: all(withRole("replacing")),
    journals: all(withRole("journal")),
    strangers: text.isActive ? all(strangers) : [],
    joining: all(joining),
    levelBefore,
    running: workOf(text, stands),
    rolesPrinted: true,
    copies: copiesOf(text.level, text.copies),
    carriesSystem: carriesSystem(graph.get(text.name)),
  };
}

/** How many members a size comes to; null where it fits no count up to those that there are. */
function membersBySize(level: string, bytes: number, parts: readonly PrintedMember[]): number | null {
  const layout = layoutOfLevel(level, null);
  const least = Math.min(...parts.map((part) => part.bytes ?? 0));
  if (!layout || layout.stripe({}).copies === "all" || layout.nominalTolerance({}) === 0 || least <= 0) return null;
  const share = bytes / least;
  for (let n = parts.length; n > 1; n -= 1)
    if (sharesOf(layout, n) >= share && sharesOf(layout, n) * 0.97 <= share) return n;
  return null;
}

/** An array that only the list of devices names: roles are not in it. */
function guessedArray(source: Source, node: Node): PrintedArray {
  const { graph } = source;
  const level = cleanText(node.device.type).toLowerCase();
  const bytes = wholeNumber(node.device.size) ?? 0;
  const parts = [...node.parents].map(({ name }) => memberOf(graph, name));
  const runs = level !== "md" && bytes > 0;
  const count = runs ? (membersBySize(level, bytes, parts) ?? parts.length) : parts.length;
  return {
    name: node.name,
    level: runs ? level : null,
    // It is not among what is read of the list; nearly all have this one.
    metadata: "1.2",
    bytes,
    places: parts.slice(0, count),
    filling: [],
    spares: parts.slice(count),
    failed: [],
    replacing: [],
    journals: [],
    strangers: runs
      ? strangersOf(
          source,
          parts.map(({ device }) => device),
        ).map((name) => memberOf(graph, name))
      : [],
    joining: [],
    levelBefore: null,
    running: null as Running | null,
    rolesPrinted: false,
    copies: copiesOf(level, null),
    carriesSystem: carriesSystem(node),
  };
}

/**
 * The arrays of a box, from the kernel's text and the list of devices; from the list alone where the text does not have
 * them.
 */
export function printedArrays(graph: DeviceGraph, texts: readonly ArrayText[]): PrintedArray[] {
  const told = texts.filter((text) => !text.isContainer);
  const names = new Set(texts.map(({ name }) => name));
  const untold = [...graph.values()].filter(
    (node) => node.kind === "RAID array" && !names.has(node.name) && node.parents.size > 0,
  );
  const source = { graph, unused: unusedByMark(graph) };
  const { compare } = new Intl.Collator("en", { numeric: true });
  return [...told.map((text) => arrayOf(source, text)), ...untold.map((node) => guessedArray(source, node))].sort(
    (a, b) => compare(a.name, b.name),
  );
}
