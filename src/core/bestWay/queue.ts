/** A queue that gives out the least first. */
export class LeastFirst<T> {
  private readonly labels: T[] = [];
  private readonly keys: number[] = [];

  get size(): number {
    return this.labels.length;
  }

  least(): number {
    return this.keys[0] ?? Infinity;
  }

  put(label: T, key: number): void {
    const { labels, keys } = this;
    let at = labels.length;
    labels.push(label);
    keys.push(key);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if ((keys[up] as number) <= key) break;
      labels[at] = labels[up] as T;
      keys[at] = keys[up] as number;
      at = up;
    }
    labels[at] = label;
    keys[at] = key;
  }

  take(): T | undefined {
    const { labels, keys } = this;
    const first = labels[0];
    const [label, key] = [labels.pop(), keys.pop() as number];
    if (label === undefined || labels.length === 0) return first;
    let at = 0;
    for (;;) {
      let down = at * 2 + 1;
      if (down >= labels.length) break;
      if (down + 1 < labels.length && (keys[down + 1] as number) < (keys[down] as number)) down += 1;
      if ((keys[down] as number) >= key) break;
      labels[at] = labels[down] as T;
      keys[at] = keys[down] as number;
      at = down;
    }
    labels[at] = label;
    keys[at] = key;
    return first;
  }
}
