import { Temporal } from "temporal-polyfill";

/** Zones with whole hours, half hours, changes of clocks in both halves of the year, and none. */
export const ZONES = [
  "Europe/Lisbon",
  "America/New_York",
  "Australia/Lord_Howe",
  "Asia/Kathmandu",
  "America/Sao_Paulo",
  "UTC",
  "Pacific/Apia",
] as const;

/** A moment in a zone; `at` in milliseconds since 1970. */
export const zoned = (at: number, timeZone: string) =>
  Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(timeZone);
