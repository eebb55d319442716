import type { Plan } from "@/core/document/plan";
import type { Problem } from "@/core/document/problem";
import { openPlan } from "@/core/box/openPlan";
import CRC32 from "crc-32";
import { deflateSync, Inflate, strFromU8, strToU8 } from "fflate";
import { asFile, type PlanFileResult } from "../importPlan";

/** Longer fragments are not made, and not read: mail programs and messengers cut them off. */
export const MOST_LINK_CHARACTERS = 30_000;
/** More than this is not unpacked, whatever a fragment claims. */
const MOST_PLAN_BYTES = 2 * 2 ** 20;

/** What tells a link that was changed on its way, behind the plan: its CRC-32, of seven letters and digits. */
const sumOf = (packed: string): string => (CRC32.str(packed) >>> 0).toString(36).padStart(7, "0");

/** The name under which the fragment carries the plan. */
const KEY = "plan=";

const toBase64Url = (bytes: Uint8Array) =>
  btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""))
    .replaceAll("+", "-")
    .replaceAll("/", "_")
    .replace(/=+$/, "");
const fromBase64Url = (text: string) =>
  Uint8Array.from(atob(text.replaceAll("-", "+").replaceAll("_", "/")), (char) => char.charCodeAt(0));

/** What a link carries of a plan: history and log, which can be many times as long as the rest, are left out. */
function withoutRecords({ history: _history, log: _log, ...rest }: Plan): Plan {
  return rest;
}

/**
 * The plan as a link that carries it in its fragment, which browsers do not send to any server; without its history and
 * log.
 *
 * @param origin of this Cortijo, as "http://localhost:3000"
 * @example writePlanLink(plan, "http://localhost:3000") // { ok: true, url: "http://localhost:3000/open#plan=q1Y…" }
 */
export function writePlanLink(plan: Plan, origin: string): { ok: true; url: string } | { ok: false; message: string } {
  const packed = toBase64Url(deflateSync(strToU8(JSON.stringify(withoutRecords(plan))), { level: 9 }));
  if (packed.length > MOST_LINK_CHARACTERS)
    return {
      ok: false,
      message:
        `This plan is too large for a link (${packed.length.toLocaleString("en")} characters, at most ` +
        `${MOST_LINK_CHARACTERS.toLocaleString("en")}). Export it as a file instead.`,
    };
  return { ok: true, url: `${origin}/open#${KEY}${packed}.${sumOf(packed)}` };
}

class TooLarge extends Error {}

/** Unpacks, and gives up as soon as it is more than a plan can be. */
function unpack(bytes: Uint8Array): Uint8Array {
  const parts: Uint8Array[] = [];
  let length = 0;
  let ended = false;
  const inflate = new Inflate((part, last) => {
    length += part.length;
    if (length > MOST_PLAN_BYTES) throw new TooLarge();
    parts.push(part);
    ended ||= last;
  });
  // A little at a time, so that what unpacks to far too much is stopped early.
  for (let at = 0; at < bytes.length; at += 4096)
    inflate.push(bytes.subarray(at, at + 4096), at + 4096 >= bytes.length);
  if (!ended) throw new Error("cut off");
  const whole = new Uint8Array(length);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

const refuse = (title: string, code: string, message: string): { ok: false; title: string; problems: Problem[] } => ({
  ok: false,
  title,
  problems: [{ code, message, pointer: "" }],
});

/**
 * Reads the plan that a link carries, as carefully as a file: limited in size, unpacked only so far, and checked whole.
 * Nothing is changed by it.
 *
 * @param fragment with or without its "#"
 */
export function readPlanLink(fragment: string): PlanFileResult {
  const text = fragment.replace(/^#/, "");
  if (!text.startsWith(KEY))
    return refuse(
      "This link carries no plan",
      "no-plan",
      "A link with a plan ends in “#plan=…”. It may have been cut off on its way: copy the whole of it, or ask " +
        "for the plan as a file.",
    );
  const [packed = "", sum, ...more] = text.slice(KEY.length).split(".");
  if (packed.length > MOST_LINK_CHARACTERS)
    return refuse(
      "This link is too long",
      "too-large",
      `A link with a plan has at most ${MOST_LINK_CHARACTERS.toLocaleString("en")} characters. Ask for the ` +
        "plan as a file.",
    );
  const damaged = refuse(
    "This link is damaged",
    "damaged",
    "What it carries cannot be unpacked: it was cut off or changed on its way. Copy the whole of it, or ask " +
      "for the plan as a file.",
  );
  if (!/^[A-Za-z0-9_-]+$/.test(packed) || more.length > 0) return damaged;
  // Links of an older program carry no sum.
  if (sum !== undefined && sum !== sumOf(packed)) return damaged;
  let json: string;
  try {
    json = strFromU8(unpack(fromBase64Url(packed)));
  } catch (error) {
    if (error instanceof TooLarge)
      return refuse(
        "This link is too large",
        "too-large",
        "What it carries is larger than a plan can be. Ask for the plan as a file.",
      );
    return damaged;
  }
  const result = openPlan(json);
  return result.ok
    ? asFile(result)
    : {
        ok: false,
        title: result.kind === "newer" ? "This plan was made by a newer Cortijo" : "What this link carries is no plan",
        problems: result.problems,
      };
}
