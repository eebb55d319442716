import type { Plan } from "./plan";

/** A list with one entry a line: records are many, and each is read as a line. */
const lines = (list: readonly unknown[]): string =>
  list.length === 0 ? "[]" : `[\n${list.map((entry) => `    ${JSON.stringify(entry)}`).join(",\n")}\n  ]`;

/** The text of a plan file, with the fields in the order in which the plan has them; history and log come last. */
export function writePlan(plan: Plan): string {
  const { history, log, ...rest } = plan;
  const records = [...(history ? [`  "history": ${lines(history)}`] : []), ...(log ? [`  "log": ${lines(log)}`] : [])];
  const text = JSON.stringify(rest, null, 2);
  return records.length === 0 ? `${text}\n` : `${text.slice(0, -2)},\n${records.join(",\n")}\n}\n`;
}
