import { readdirSync, readFileSync } from "node:fs";
import { parseExcluded } from "../../src/core/calendar/excludedDays";
import { parseSize } from "../../src/core/bytes/parseSize";
import { clinic } from "../../src/core/document/samples/clinic";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { typedDrives } from "../../src/core/drives/typedDrives";
import { Dice } from "../../src/core/testing/likelyPlan";
import { spoilt } from "./spoilt";
import { nastyPlan, stretchedPlan } from "./stretchedPlan";
import { readDriveCsv, writeDriveCsv } from "../../src/exchange/driveList/driveCsv";
import { readPriceCsv } from "../../src/exchange/driveList/priceCsv";
import { readLsblk } from "../../src/exchange/inventory/readLsblk";
import { readPlanLink, writePlanLink } from "../../src/exchange/planLink/planLink";
import { answerRequest, MOST_ANSWER_BYTES } from "../../src/exchange/prediction/answerRequest";
import { readSmart } from "../../src/exchange/smart/readSmart";
import { textOfFile } from "../../src/exchange/textOfFile";

const files = (folder: string) => readdirSync(folder).map((name) => readFileSync(`${folder}/${name}`, "utf8"));
const TODAY = "2026-11-26";
const MAY_BE_NULL = new Set(["after", "attention", "fullOn", "fullWithoutPlanOn"]);

/** What is wrong with an answer: a status of its own, too long, or a null where a number should be. */
function wrongAnswer(text: string, parts: string | null): string | null {
  const { status, body } = answerRequest(text, parts, TODAY);
  if (![200, 400, 422].includes(status)) return `status ${status}`;
  if (body.length > MOST_ANSWER_BYTES) return `${body.length} bytes`;
  let wrong: string | null = null;
  JSON.parse(new TextDecoder().decode(body), (key, value: unknown) => {
    if (value === null && status === 200 && !MAY_BE_NULL.has(key)) wrong = `null at "${key}"`;
    return value;
  });
  return wrong;
}

/** A reader, the texts that it is meant for, and how often it is tried in a hundred. */
interface Target {
  name: string;
  share: number;
  texts: string[];
  /** What is wrong, or null. It must never throw. */
  read: (text: string, dice: Dice) => string | null;
}

function targets(root: string): Target[] {
  const link = writePlanLink(clinic, "");
  const only = (read: (text: string) => unknown) => (text: string) => (read(text), null);
  const plans = [clinic, coveredClinic, nastyPlan(7, 4)].map((plan) => JSON.stringify(plan));
  return [
    { name: "plan, spoilt", share: 25, texts: plans, read: (text) => wrongAnswer(text, null) },
    {
      name: "plan, out to its ends",
      share: 3,
      texts: plans,
      read: (_, dice) =>
        wrongAnswer(
          JSON.stringify(stretchedPlan(nastyPlan(dice.below(1e9), 1 + dice.below(4)), dice, dice.one([0.02, 0.2]))),
          dice.one([null, "moments", "pools,bands", "demand,orders"]),
        ),
    },
    {
      name: "block-device list",
      share: 12,
      texts: files(`${root}/src/exchange/inventory/captures`),
      read: only(readLsblk),
    },
    { name: "SMART report", share: 12, texts: files(`${root}/src/exchange/smart/captures`), read: only(readSmart) },
    {
      name: "CSV of drives",
      share: 12,
      texts: [writeDriveCsv(clinic.drives), "size;price\n4 TB;99,90\n"],
      read: only(readDriveCsv),
    },
    {
      name: "CSV of prices",
      share: 6,
      texts: ['size,price,kind\n12 TB,238,hdd\n8 TB,"1,99",nvme\n'],
      read: only(readPriceCsv),
    },
    { name: "link", share: 10, texts: [link.ok ? link.url.slice("/open".length) : ""], read: only(readPlanLink) },
    {
      name: "typed drives",
      share: 10,
      texts: ["6 × 4 TB, 2 x 500GB ssd; 8 TB nvme", "4 4 8"],
      read: only(typedDrives),
    },
    { name: "typed size", share: 5, texts: ["1.5 TiB", "12,5 TB", "4000787030016"], read: only(parseSize) },
    {
      name: "typed days",
      share: 3,
      texts: ["24–26 Dec, 1 Jan", "2027-01-01"],
      read: only((text) => parseExcluded(text, TODAY)),
    },
    {
      name: "bytes of a file",
      share: 2,
      texts: plans,
      read: only((text) => textOfFile(Uint8Array.from(Buffer.from(text, "utf16le")).buffer)),
    },
  ];
}

/** What came of so many spoilt inputs: how many each reader got, and everything that went wrong. */
export interface Fuzzed {
  tried: Record<string, number>;
  wrong: string[];
}

/**
 * Tries the readers and the route with spoilt inputs, the same for the same seed.
 *
 * @param root the project's folder
 */
export function fuzz(root: string, count: number, seed: number): Fuzzed {
  const dice = new Dice(seed);
  const all = targets(root);
  const wheel = all.flatMap((target) => Array.from({ length: target.share }, () => target));
  const tried = new Map<string, number>();
  const wrong: string[] = [];
  for (let n = 0; n < count; n += 1) {
    const target = dice.one(wheel);
    const text = spoilt(target.texts, dice);
    tried.set(target.name, (tried.get(target.name) ?? 0) + 1);
    let found: string | null;
    try {
      found = target.read(text, dice);
    } catch (error) {
      found = `threw ${error instanceof Error ? error.stack : String(error)}`;
    }
    if (found !== null) wrong.push(`${target.name}, input ${n}: ${found}\n${text.slice(0, 600)}`);
  }
  return { tried: Object.fromEntries(tried), wrong };
}
