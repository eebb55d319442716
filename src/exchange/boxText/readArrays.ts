import { KiB, type Bytes } from "@/core/bytes/bytes";
import type { Running, RunningKind } from "@/core/reading/printedBox";

/** A device in the kernel's line of an array. */
export interface ArrayDevice {
  name: string;
  /** Its number, which is not its place. */
  number: number;
  role: "member" | "spare" | "failed" | "replacing" | "journal";
}

/** An array in the kernel's text, as it is printed. */
export interface ArrayText {
  name: string;
  isActive: boolean;
  level: string | null;
  devices: ArrayDevice[];
  /** The version of the driver's own notes: "1.2"; "0.90" where none is printed. */
  metadata: string;
  /** In bytes; of one that does not run the sum of its members. */
  bytes: Bytes;
  /** Which of its places are in sync, "U_U"; null where it prints none, as stripes do. */
  places: string | null;
  /** The number of the parity's arrangement; null where none is printed. */
  algorithm: number | null;
  copies: number | null;
  /** Whether it is only a container of others, whose format is a maker's own. */
  isContainer: boolean;
  running: Running | null;
}

/** The most arrays, and devices of one, that are read. */
const MOST = 1024;

const HEAD = /^\s*(md[\w/.-]*)\s*:\s*(active|inactive)\b(.*)$/;
const DEVICE = /^([\w!/.-]{1,64})\[(\d{1,6})\]((?:\([A-Z]\)){0,4})$/;
const LEVEL = /^(?:linear|raid\d+|multipath|faulty)$/;

const ROLES: ReadonlyMap<string, ArrayDevice["role"]> = new Map([
  ["F", "failed"],
  ["S", "spare"],
  ["R", "replacing"],
  ["J", "journal"],
]);

function roleOf(flags: string): ArrayDevice["role"] {
  // A failed one counts as failed, whatever it was before.
  for (const [sign, role] of ROLES) if (flags.includes(`(${sign})`)) return role;
  return "member";
}

function headOf(line: string): ArrayText | null {
  const head = HEAD.exec(line);
  if (!head) return null;
  const [, name = "", state, rest = ""] = head;
  const words = rest.replace(/\((?:auto-)?read-only\)/g, " ").split(/\s+/);
  const devices = words.slice(0, MOST).flatMap((word): ArrayDevice[] => {
    const [, device, number, flags = ""] = DEVICE.exec(word) ?? [];
    return device === undefined ? [] : [{ name: device, number: Number(number), role: roleOf(flags) }];
  });
  return {
    name,
    isActive: state === "active",
    level: words.find((word) => LEVEL.test(word)) ?? null,
    devices,
    metadata: "0.90",
    bytes: 0,
    places: null,
    algorithm: null,
    copies: null,
    isContainer: false,
    running: null,
  };
}

/** Takes the line with the size over. */
function takeSize(array: ArrayText, line: string): void {
  const blocks = /^\s*(\d{1,15}) blocks\b/.exec(line);
  if (!blocks) return;
  array.bytes = Number(blocks[1]) * KiB;
  array.metadata = /super (\d\.\d+)/.exec(line)?.[1] ?? array.metadata;
  array.isContainer = /super external:(?!\/)/.test(line);
  const places = /\[(\d+)\/(\d+)\]\s+\[([U_]+)\]/.exec(line);
  if (places) array.places = places[3] ?? null;
  const algorithm = /algorithm (\d+)/.exec(line);
  if (algorithm) array.algorithm = Number(algorithm[1]);
  const copies = /(\d+) (?:near|far|offset)-copies/.exec(line);
  if (copies) array.copies = Number(copies[1]);
}

const KINDS: ReadonlyMap<string, RunningKind> = new Map([
  ["recovery", "recovery"],
  ["recover", "recovery"],
  ["resync", "resync"],
  ["reshape", "reshape"],
  ["check", "check"],
  ["repair", "check"],
]);

/** Takes a line with work that is under way, or waits for other work, over. */
function takeWork(array: ArrayText, line: string): void {
  const waits = /\b(\w+)\s*=\s*(?:DELAYED|PENDING|REMOTE)\b/.exec(line);
  const works = /\b(recovery|recover|resync|reshape|check|repair)\s*=\s*([\d.]+)%/.exec(line);
  const kind = KINDS.get((works ?? waits)?.[1] ?? "");
  if (!kind) return;
  const blocks = /\((\d{1,15})\/(\d{1,15})\)/.exec(line);
  const finish = /finish=([\d.]+)min/.exec(line);
  const speed = /speed=(\d{1,12})K\/sec/.exec(line);
  const [part, whole] = [Number(blocks?.[1] ?? 0), Number(blocks?.[2] ?? 0)];
  const done = whole > 0 ? part / whole : works ? Number(works[2]) / 100 : null;
  array.running = {
    kind,
    done: done === null ? null : Math.min(1, Math.max(0, done)),
    minutesLeft: finish ? Number(finish[1]) : null,
    rate: speed ? Number(speed[1]) * KiB : null,
    total: whole > 0 ? whole * KiB : null,
  };
}

/**
 * Reads the kernel's text of arrays (`/proc/mdstat`), with whatever stands before, between and behind. A name that is
 * printed twice counts as it is printed last.
 *
 * @returns none where the text has no array
 * @example readArrays("md0 : active raid1 sdb[1] sda[0]\n 613376 blocks super 1.2 [2/2] [UU]")[0].bytes // 628 097 024
 */
export function readArrays(text: string): ArrayText[] {
  const arrays = new Map<string, ArrayText>();
  let current: ArrayText | null = null;
  for (const line of text.split(/\r\n|\r|\n/)) {
    const head = line.length < 100_000 ? headOf(line) : null;
    if (head) {
      if (arrays.size >= MOST) break;
      arrays.delete(head.name);
      arrays.set(head.name, head);
      current = head;
    } else if (current && line.length < 1000) {
      if (/^\s*unused devices/.test(line)) current = null;
      else {
        takeSize(current, line);
        takeWork(current, line);
      }
    }
  }
  return [...arrays.values()];
}

/** Whether a text is the kernel's text of arrays, also one of a box that has none. */
export const isArraysText = (text: string): boolean => /^\s*(?:Personalities\s*:|unused devices)/m.test(text);
