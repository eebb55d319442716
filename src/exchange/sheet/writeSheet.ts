import { cardsOf, type Card } from "@/core/carrying/card";
import { checkWords, type DriveCheck } from "@/core/carrying/driveCheck";
import { hoursWords } from "@/core/time/hoursWords";
import { plainDayWords } from "@/core/time/dateWords";
import type { Walk } from "@/core/walk/moment";
import CRC32 from "crc-32";
import { asHtml, asScriptJson } from "../html";
import { planFileName } from "../exportPlan";
import { selfContainedPage } from "./page";
import { SHEET_SCRIPT } from "./sheetScript";

const list = (entries: readonly string[]): string => `<ul>${entries.map((entry) => `<li>${entry}</li>`).join("")}</ul>`;

/** Things to tick, each with its own place among what the sheet keeps. */
const ticks = (step: string, part: string, entries: readonly string[]): string =>
  entries.length === 0
    ? ""
    : list(
        entries.map(
          (entry, i) => `<label><input type="checkbox" id="${part}-${asHtml(step)}-${i}"><span>${entry}</span></label>`,
        ),
      );

const WHAT_FOR = { erased: "will be erased", pulled: "will be pulled", new: "is put in" } as const;

function driveHtml(check: DriveCheck): string {
  const { make, serial, why } = check;
  const words = asHtml([checkWords(check), make, serial ? `serial number ${serial}` : ""].filter(Boolean).join(" · "));
  return `${words} <span class="${why === "erased" ? "erase" : "soft"}">${WHAT_FOR[why]}</span>`;
}

/** Where the serial number of a drive that the plan does not know yet is noted. */
const serialHtml = (step: string, { drive, size }: DriveCheck): string =>
  `<p><label class="label">Serial number of the new ${asHtml(size)} drive<input ` +
  `id="serial-${asHtml(step)}-${asHtml(drive)}" data-step="${asHtml(step)}" data-drive="${asHtml(drive)}" ` +
  'maxlength="120" autocomplete="off"></label></p>';

const part = (title: string, body: string): string => `<h3>${title}</h3>${body}`;
const sentences = (texts: readonly string[]): string => texts.map((text) => `<p>${asHtml(text)}</p>`).join("");

function timesHtml(id: string, { size }: Card): string {
  const time = (what: "start" | "end", label: string, says: string) =>
    `<div class="row"><label>${label}<input type="datetime-local" id="${what}-${id}"></label><button ` +
    `type="button" data-now="${what}-${id}" data-says="${says}">Now</button></div>`;
  const seen = size ? `Size that the box shows (${asHtml(size.shown)} expected)` : "Anything to note of its size";
  return (
    `<div class="times">${time("start", "Begun", "Begun")}${time("end", "Ended", "Ended")}<label>${seen}<input ` +
    `id="seen-${id}" maxlength="40" autocomplete="off"></label></div>`
  );
}

const checksHtml = (card: Card): string => ticks(card.step.id, "drive", card.checks.map(driveHtml)) + news(card);

const workHtml = ({ hours, shows }: NonNullable<Card["work"]>, meanwhile: string): string =>
  sentences([`It takes ${hoursWords(hours)}. ${shows} ${meanwhile}`]);

const news = ({ step, checks }: Card): string =>
  checks.flatMap((check) => (check.serial === null ? [serialHtml(step.id, check)] : [])).join("");

const heeded = (findings: Card["warnings"]): string =>
  findings.map(({ message }) => `<p class="warn">${asHtml(message)}</p>`).join("");

function stepHtml(card: Card, number: number): string {
  const id = asHtml(card.step.id);
  return `<section id="step-${id}" aria-labelledby="title-${id}">
<h2 id="title-${id}">${number}. ${asHtml(card.label)}</h2>
<p>${asHtml(card.does)}</p><p class="soft">${asHtml(card.why)}</p>
${
  card.blocks.length > 0
    ? `<p>As the box then is, this cannot be done. Change the plan first.</p>${heeded(card.blocks)}`
    : courseHtml(card)
}
</section>`;
}

/** What to do, in its order, with ticks and times. */
function courseHtml(card: Card): string {
  const id = asHtml(card.step.id);
  const { first, last } = card.acts;
  return `${heeded(card.warnings)}
${card.atHand.length > 0 ? part("Have at hand", list(card.atHand.map(asHtml))) : ""}
${card.checks.length > 0 ? part("Is it this drive?", checksHtml(card)) : ""}
${part("What to do", ticks(card.step.id, "first", first.map(asHtml)))}
${card.work ? part("What then happens", workHtml(card.work, card.meanwhile)) : ""}
${card.never.length > 0 ? part("Meanwhile", sentences(card.never)) : ""}
${part("When it has ended", sentences([card.ended]) + ticks(card.step.id, "last", last.map(asHtml)))}
${part("If the box says something else", sentences([card.otherwise]))}
${timesHtml(id, card)}`;
}

/** What tells the sheets of two plans, or of two states of one, apart in a browser. */
const keyOf = ({ plan }: Walk): string =>
  `${plan.name}-${(CRC32.str(JSON.stringify([plan.steps, plan.drives])) >>> 0).toString(36)}`;

/**
 * The whole course of a plan as one HTML page that works without network and without Cortijo: what to do at each step,
 * with ticks and times that it keeps, and a line that brings them back.
 *
 * @param walk the plan, walked from now on
 * @param day on which it is written, as YYYY-MM-DD
 * @example saveFile("clinic-sheet.html", "text/html", writeSheet(walkPlan(plan), "2026-11-26"))
 */
export function writeSheet(walk: Walk, day: string): string {
  const cards = cardsOf(walk);
  const { name } = walk.plan;
  const file = planFileName(name).replace(/\.cortijo\.json$/, ".sheet.json");
  const sheet = {
    key: keyOf(walk),
    plan: name,
    steps: cards.flatMap(({ step, blocks }) => (blocks.length > 0 ? [] : [step.id])),
    file,
  };
  const body = `<h1>${asHtml(name)}: at the box</h1>
<p class="soft">Written ${asHtml(plainDayWords(day))}. Ticks and times stay in this browser; at the end, bring them back
into the plan.</p>
<p id="unkept" class="erase" hidden>This browser keeps nothing for a page like this: leave it open, or copy the line at
its end before you close it.</p>
<p class="noprint"><button type="button" data-does="print">Print</button></p>
<p id="said" role="status"></p>
${cards.map((card, i) => stepHtml(card, i + 1)).join("\n")}
<section class="noprint" aria-labelledby="back">
<h2 id="back">Bring it back into the plan</h2>
<p>In Cortijo, on the page Carry out of this plan: “Bring a sheet back”. Paste this line there, or open the file.</p>
<label class="label" for="line">The line</label>
<textarea id="line" rows="4" readonly></textarea>
<p><button type="button" class="main" data-does="copy">Copy the line</button>
<button type="button" data-does="save">Save as a file</button></p>
</section>`;
  return selfContainedPage(`${name}: at the box`, body, `const SHEET = ${asScriptJson(sheet)};${SHEET_SCRIPT}`);
}
