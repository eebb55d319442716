const minutesOf = (time: string): number => {
  const [hours, minutes] = time.split(":").map(Number);
  return (hours ?? 0) * 60 + (minutes ?? 0);
};

/**
 * How many minutes lie between two times of the clock of one day; negative where the second comes first.
 *
 * @param from as HH:MM
 * @param to the same
 * @example minutesBetween("18:00", "22:15") // 255
 */
export function minutesBetween(from: string, to: string): number {
  return minutesOf(to) - minutesOf(from);
}
