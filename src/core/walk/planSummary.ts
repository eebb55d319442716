import { formatBytes } from "../bytes/formatBytes";
import { lengthWords } from "../time/hoursWords";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { survivesMeanwhile } from "../words/survives";
import { erasedDrives } from "./erasedDrives";
import { exposedFor } from "./exposedFor";
import type { Walk } from "./moment";

const NUMBERS = [
  "No",
  "One",
  "Two",
  "Three",
  "Four",
  "Five",
  "Six",
  "Seven",
  "Eight",
  "Nine",
  "Ten",
  "Eleven",
  "Twelve",
];
const counted = (n: number) => NUMBERS[n] ?? n.toLocaleString("en");

/** The day of a plan on which an hour falls, counted from 1. */
export const dayOf = (hours: number): number => Math.floor(hours / 24) + 1;

/**
 * For how many expected hours of a plan the loss of so few drives is survived: the sum over steps while which the
 * redundancy of some pool is no more than `redundancy`.
 */
export function exposedHours({ moments }: Walk, redundancy: number): number {
  return moments.reduce(
    (sum, { walked }) => sum + (walked ? exposedFor(walked, (each) => each.redundancy <= redundancy) : 0),
    0,
  );
}

/**
 * A plan in a few sentences that can be read aloud.
 *
 * @param dayOfMoment the day of a moment in words, where the plan has dates: "on 8 Dec"
 * @example planSummary(walk(plan))
 * // ["Four steps over about 2 days.", "Usable 8.00 → 16.0 TB, most of it on day 2.", "For about 37 hours in all,
 * // one more failed drive would lose data.", …]
 */
export function planSummary(made: Walk, dayOfMoment?: (index: number) => string): string[] {
  const { moments, family } = made;
  const walked = moments.flatMap((moment) => moment.walked ?? []);
  const active = walked.filter((each) => !each.step.disabled);
  const [first, last] = [moments[0], moments.at(-1)];
  if (active.length === 0 || !first || !last) return ["No step is planned."];
  const end = Math.max(...walked.map((each) => each.to));
  const said = [
    `${counted(active.length)} ${plural(active.length, "step", "steps")} ${dayOfMoment ? "with" : "over"} ` +
      `${lengthWords(end)}${dayOfMoment ? " of work" : ""}.`,
  ];
  const [from, to] = [first.capacities.fileSystem, last.capacities.fileSystem];
  const anyVolume = last.state.plan.pools.some((pool) => pool.volumes.length > 0);
  const what = anyVolume ? "Space for your files" : "Usable space";
  if (formatBytes(from, family) === formatBytes(to, family)) said.push(`${what} stays at ${formatBytes(to, family)}.`);
  else {
    const rises = moments.slice(1).map((moment, i) => ({
      rise: moment.capacities.fileSystem - (moments[i]?.capacities.fileSystem ?? 0),
      to: moment.walked?.to ?? 0,
      index: i + 1,
    }));
    const largest = rises.reduce((best, each) => (each.rise > best.rise ? each : best), { rise: 0, to: 0, index: 0 });
    const when =
      largest.rise > 0
        ? `, ${largest.rise >= 0.99 * (to - from) ? "all" : "most"} of it ` +
          (dayOfMoment ? dayOfMoment(largest.index) : `on day ${dayOf(largest.to)}`)
        : "";
    said.push(`${what}: ${formatBytes(from, family)} → ${formatBytes(to, family)}${when}.`);
  }
  const bare = exposedHours(made, 0);
  if (bare > 0) said.push(`For ${lengthWords(bare)} in all, ${survivesMeanwhile(0)}.`);
  else if (moments.some((moment) => moment.walked?.exposure.length))
    said.push("While it runs, your protection is one drive less.");
  const erased = erasedDrives(made);
  if (erased.length > 0)
    said.push(
      `${listOf(erased.map(({ name }, i) => (i === 0 ? name : name.replace(/^T/, "t"))))} ` +
        `${plural(erased.length, "is", "are")} erased.`,
    );
  const blocked = walked.filter((each) => each.findings.some((finding) => finding.severity === "block")).length;
  if (blocked > 0)
    said.push(`${counted(blocked)} ${plural(blocked, "step cannot", "steps cannot")} be carried out as planned.`);
  return said;
}
