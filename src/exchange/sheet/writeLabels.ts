import { driveOf } from "@/core/box/find";
import { bayOf } from "@/core/drives/drive";
import { shortSize } from "@/core/drives/nameOfDrive";
import { isGone } from "@/core/drives/driveState";
import type { Schedule } from "@/core/schedule/schedulePlan";
import { dayIn, plainDayWords } from "@/core/time/dateWords";
import type { Walk } from "@/core/walk/moment";
import { asHtml } from "../html";
import { selfContainedPage } from "./page";

/** A sticker for a drive. */
export interface DriveLabel {
  drive: string;
  /** "Bay 3", "Out of bay 3" */
  place: string;
  size: string;
  /** The end of its serial number, or a line to write it on. */
  serial: string;
  day: string;
}

const serialEnd = (serial: string | undefined): string => (serial ? `…${serial.slice(-4)}` : "…______");

/**
 * The stickers of a plan: one for each drive in a bay now, and one for each that goes in, comes out or changes its bay
 * on the way, with the day.
 *
 * @param schedule the plan's dates, where it has any; without, the day is left to be written
 * @param day today, as YYYY-MM-DD
 * @example driveLabels(walk, null, "2026-11-26")[0]
 * // { place: "Bay 1", size: "4 TB", serial: "…4418", day: "26 Nov 2026" }
 */
export function driveLabels({ moments, family }: Walk, schedule: Schedule | null, day: string): DriveLabel[] {
  const [first] = moments;
  const labels: DriveLabel[] = [];
  const add = (id: string, place: string, when: string, i: number) => {
    const drive = moments[i] && driveOf(moments[i].state.plan, id);
    if (drive)
      labels.push({ drive: id, place, size: shortSize(drive, family), serial: serialEnd(drive.serial), day: when });
  };
  for (const drive of first?.state.plan.drives ?? []) {
    const bay = bayOf(drive);
    if (bay !== null && !isGone(drive)) add(drive.id, `Bay ${bay}`, plainDayWords(day), 0);
  }
  moments.forEach(({ state }, i) => {
    const before = moments[i - 1]?.state.plan;
    if (!before) return;
    const dated = schedule?.steps[i - 1];
    const when = dated ? plainDayWords(dayIn(dated.start, schedule.calendar.timeZone)) : "__________";
    for (const drive of state.plan.drives) {
      const was = driveOf(before, drive.id);
      const [from, to] = [was ? bayOf(was) : null, bayOf(drive)];
      if (from !== to) add(drive.id, to === null ? `Out of bay ${from}` : `Bay ${to}`, when, i);
    }
  });
  return labels;
}

/** The stickers as a page to print, for scissors or for sheets of labels. */
export function writeLabels(walk: Walk, schedule: Schedule | null, day: string): string {
  const { name, box } = walk.plan;
  const stickers = driveLabels(walk, schedule, day).map(
    ({ place, size, serial, day: when }) =>
      `<li><div class="bay">${asHtml(place)}</div><div>${asHtml(size)} · ${asHtml(serial)}</div><div ` +
      `class="soft">${asHtml(when)} · ${asHtml(box.name || name)}</div></li>`,
  );
  const body = `<h1 class="noprint">${asHtml(name)}: labels for the drives</h1>
<p class="noprint">Print this page, cut along the lines, and stick each on its drive. A drive that is pulled gets the one
that says so.</p>
<p class="noprint"><button type="button" class="main" id="print">Print</button></p>
<ul class="labels">${stickers.join("")}</ul>`;
  const script = 'document.getElementById("print").addEventListener("click", () => window.print());';
  return selfContainedPage(`${name}: labels`, body, script);
}
