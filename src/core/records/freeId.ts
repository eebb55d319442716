/**
 * Gives one free id of a kind after the other: for many at once.
 *
 * @example const next = freeIds("g", ["g1"]); next() // "g2", then "g3"
 */
export function freeIds(letter: string, taken: Iterable<string>): () => string {
  const ids = new Set(taken);
  let n = 0;
  return () => {
    do n += 1;
    while (ids.has(`${letter}${n}`));
    return `${letter}${n}`;
  };
}

/** The first free id of a kind: d1, d2 … */
export function freeId(letter: string, taken: Iterable<string>): string {
  const ids = new Set(taken);
  let n = 1;
  while (ids.has(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}
