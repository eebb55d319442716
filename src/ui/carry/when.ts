import { momentWords } from "@/core/time/dateWords";

/** The zone in which this device tells the time: whoever stands at the box reads its clock. */
export const deviceZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** "Sat 28 Nov, 09:00", in the time of this device. */
export const whenWords = (at: string | number): string =>
  momentWords(typeof at === "number" ? at : Date.parse(at), deviceZone());

const two = (value: number) => String(value).padStart(2, "0");

/** An instant as a field of date and time has it, in the time of this device. */
export function localOf(instant: string): string {
  const at = new Date(instant);
  const day = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
  return `${day}T${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** The instant of what a field of date and time has, to the minute; null where it has none. */
export function instantOf(local: string): string | null {
  const at = new Date(local);
  return Number.isFinite(at.getTime()) ? `${at.toISOString().slice(0, 16)}Z` : null;
}
