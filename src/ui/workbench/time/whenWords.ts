/** The day on which a step begins, short enough for a list: "3 May". */
export const startWords = (at: number, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", timeZone }).format(at);

/** How long a step takes, short enough for a list: "min", "4.2 h", "31 h", "3.5 d". */
export function hoursShort(hours: number): string {
  if (hours < 0.5) return "min";
  if (hours < 9.95) return `${hours.toFixed(1)} h`;
  return hours < 72 ? `${Math.round(hours)} h` : `${(hours / 24).toFixed(1)} d`;
}
