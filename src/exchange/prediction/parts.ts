/**
 * What can be asked of `/api/predict`: `pools`, now and, with `moments`, at every moment; of them `groups`, their
 * `bands`, `volumes`, `survival`, `ledger`; `findings` of the box and of whatever else is asked; `moments` with what
 * each step does, takes and risks; `orders`, `coverage`, `backups` and `demand` where the plan has a calendar or data;
 * `rescue` what to do for pools that lack drives, and `chance` how likely something is lost, at rest and along the
 * steps, where they are asked for by name.
 */
export const PARTS = [
  "pools",
  "groups",
  "bands",
  "volumes",
  "survival",
  "ledger",
  "findings",
  "moments",
  "orders",
  "coverage",
  "backups",
  "demand",
  "rescue",
  "chance",
] as const;

export type Part = (typeof PARTS)[number];

/** What is a detail of another part, and not to be had without it. */
const PART_OF: Partial<Record<Part, readonly Part[]>> = {
  bands: ["groups"],
  groups: ["pools"],
  volumes: ["pools"],
  survival: ["pools"],
  ledger: ["pools"],
  chance: ["pools", "moments"],
};

/** Only where they are asked for by name: they take long. */
const BY_NAME: ReadonlySet<Part> = new Set(["rescue", "chance"]);

/** What is answered where nothing is asked for by name: all but what takes long and is rarely wanted. */
export const ALL_PARTS: ReadonlySet<Part> = new Set(PARTS.filter((part) => !BY_NAME.has(part)));

export type PartsResult = { ok: true; parts: ReadonlySet<Part> } | { ok: false; message: string };

const isPart = (name: string): name is Part => (PARTS as readonly string[]).includes(name);

/**
 * Reads which parts are asked for; a part brings with it what it is a detail of.
 *
 * @param text names with commas between, or null for all of them
 * @example readParts("ledger") // { ok: true, parts: new Set(["ledger", "pools"]) }
 */
export function readParts(text: string | null): PartsResult {
  if (text === null) return { ok: true, parts: ALL_PARTS };
  const names = text.split(",").map((name) => name.trim());
  const unknown = names.find((name) => !isPart(name));
  if (unknown !== undefined) {
    const message = `There is no part "${unknown.slice(0, 40)}" of an answer. The parts are ${PARTS.join(", ")}.`;
    return { ok: false, message };
  }
  const parts = new Set<Part>();
  const add = (part: Part) => {
    parts.add(part);
    PART_OF[part]?.forEach(add);
  };
  names.filter(isPart).forEach(add);
  return { ok: true, parts };
}
