/** The first free id of a kind: d1, d2 … */
export function freeId(letter: string, taken: Iterable<string>): string {
  const ids = new Set(taken);
  let n = 1;
  while (ids.has(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}
