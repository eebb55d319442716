import type { Plan } from "../document/plan";
import { lengthWords } from "../time/hoursWords";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { storedOf } from "./losses";
import { type Cell, type Tally, tallyOf, type Toll } from "./table";

const count = (n: number): string => n.toLocaleString("en");

/**
 * How old what comes back is, in words.
 *
 * @example ageWords(168) // "up to 7 days old"
 */
export const ageWords = (hours: number): string =>
  hours < 1 ? "less than an hour old" : `up to ${lengthWords(hours).replace("about ", "")} old`;

/**
 * A backup by its name, as the plan knows it.
 *
 * @example backupName(plan, "b1") // "Box at home"
 */
export const backupName = ({ backups = [] }: Pick<Plan, "backups">, id: string): string =>
  backups.find((backup) => backup.id === id)?.name ?? id;

/** What the mishaps took of some data, as a sentence. */
function tollWords(plan: Plan, name: string, { restored, lost, oldest, from }: Toll): string {
  const back =
    restored > 0 && from !== null
      ? [`in ${count(restored)} back from ${backupName(plan, from)}, ${ageWords(oldest)}`]
      : [];
  const gone = lost > 0 ? [`in ${count(lost)} lost for good, in part or all of it`] : [];
  return ` ${name}: ${[...back, ...gone].join("; ")}.`;
}

/** Where the bad cases lie: the steps that have any, as numbers from 1, null for before the first. */
function stepsOfBad(cells: readonly Cell[], plan: Plan): string {
  const bad = cells.filter(({ lost, restored }) => lost + restored > 0);
  const order = plan.steps.filter(({ disabled }) => !disabled).map(({ id }) => id);
  const rows = new Set(bad.map(({ row }) => (row === null ? 0 : order.indexOf(row) + 1)));
  if (rows.size === 0 || order.length === 0) return "";
  const numbers = [...rows].sort((a, b) => a - b);
  const steps = numbers.filter((n) => n > 0).map(String);
  const before = numbers[0] === 0 ? ["before the first step"] : [];
  const within = steps.length > 0 ? [`${plural(steps.length, "step")} ${listOf(steps)}`] : [];
  if (rows.size > order.length) return " These fall into every step.";
  return ` These fall into ${listOf([...within, ...before])}.`;
}

/**
 * What came of all that was tried, in a sentence or two; its counts are those of the table.
 *
 * @param what one case is called
 * @example summaryOf(cells, plan)
 * // "1,248 mishaps tried: nothing is lost in 1,201. X-rays: in 47 back from Box at home, up to 7 days old. These fall
 * // into step 4."
 */
export function summaryOf(cells: readonly Cell[], plan: Plan, what = "mishap"): string {
  const tally: Tally = tallyOf(cells);
  if (tally.tried === 0) return "Nothing can go wrong here: the plan has no pool.";
  const names = new Map(storedOf(plan).map(({ id, name }) => [id, name || "A volume"]));
  const tried = `${count(tally.tried)} ${plural(tally.tried, what)} tried`;
  if (tally.whole === tally.tried) return `${tried}: nothing is lost in any of them.`;
  const tolls = [...tally.tolls].map(([id, toll]) => tollWords(plan, names.get(id) ?? "Something", toll)).join("");
  const first = tally.whole === 0 ? "something is lost in each" : `nothing is lost in ${count(tally.whole)}`;
  return `${tried}: ${first}.${tolls}${stepsOfBad(cells, plan)}`;
}
