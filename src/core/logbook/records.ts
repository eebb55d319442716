import { MOST_HISTORY, MOST_LOG, MOST_RECORD_CHARACTERS } from "../document/limits";
import type { Plan } from "../document/plan";
import { recordCharacters } from "../document/recordCharacters";

type Records = Pick<Plan, "history" | "log">;

/** The next id of a list of records: they are never given twice, so that an entry in a CSV file keeps its own. */
export function freeRecordId(letter: "h" | "l", records: readonly { id: string }[]): string {
  const numbers = records.map(({ id }) => Number(new RegExp(`^${letter}(\\d{1,9})$`).exec(id)?.[1] ?? 0));
  return `${letter}${numbers.reduce((most, number) => Math.max(most, number), 0) + 1}`;
}

/** How full the records of a plan are, from 0 to 1: by their number, or by the characters that a file can have. */
export function fullnessOf({ history = [], log = [] }: Records): number {
  const characters = history.length + log.length === 0 ? 0 : recordCharacters({ history, log });
  return Math.max(history.length / MOST_HISTORY, log.length / MOST_LOG, characters / MOST_RECORD_CHARACTERS);
}

/** From here on it is said that the oldest records should go to a file. */
export const NEARLY_FULL = 0.9;

/**
 * The oldest records, which go to a file when there is no space for more: a quarter of all.
 *
 * @example oldestRecords(plan) // ["h1", "h2", "l1"]
 */
export function oldestRecords({ history = [], log = [] }: Records): string[] {
  const all = [...history, ...log].sort((a, b) => Date.parse(a.start) - Date.parse(b.start));
  return all.slice(0, Math.ceil(all.length / 4)).map(({ id }) => id);
}
