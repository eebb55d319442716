/**
 * An hour of a rehearsal by the box's clock, which begins with day 1.
 *
 * @example clockWords(30.5) // "Day 2, 06:30"
 */
export function clockWords(hours: number): string {
  const minutes = Math.floor(hours * 60 + 1e-6);
  const two = (n: number) => String(n).padStart(2, "0");
  return `Day ${Math.floor(minutes / 1440) + 1}, ${two(Math.floor(minutes / 60) % 24)}:${two(minutes % 60)}`;
}
