/**
 * Keeps, class by class, what nothing else of its class makes idle; what is made idle later is over.
 *
 * @param covers whether one makes another idle
 * @returns takes one in: false where another makes it idle
 */
export function unbeaten<T extends { way: { isOver: boolean } }>(
  covers: (one: T, other: T) => boolean,
): (name: string | number, held: T) => boolean {
  const classes = new Map<string | number, T[]>();
  return (name, held) => {
    const list = classes.get(name) ?? [];
    if (list.some((other) => covers(other, held))) return false;
    let left = 0;
    for (const other of list) {
      other.way.isOver ||= covers(held, other);
      if (!other.way.isOver) list[left++] = other;
    }
    list.length = left;
    list.push(held);
    classes.set(name, list);
    return true;
  };
}
