/**
 * What is kept under a name that comes from a plan, a file or a person. Every object has a "constructor" and a
 * "toString" that nobody kept there, so that `record[name]` would find them; and a drive may be called so.
 *
 * @returns undefined where nothing is kept under the name
 * @example ownValue({ d1: 5 }, "d1") // 5
 * @example ownValue({ d1: 5 }, "constructor") // undefined
 */
export function ownValue<T>(record: Readonly<Record<string, T>> | undefined, name: string): T | undefined {
  return record && Object.hasOwn(record, name) ? record[name] : undefined;
}

/**
 * A record with a value more, or another one, under a name; also under "__proto__", which cannot be assigned.
 *
 * @example withValue({ d1: 5 }, "d2", 7) // { d1: 5, d2: 7 }
 */
export function withValue<T>(record: Readonly<Record<string, T>> | undefined, name: string, value: T) {
  return Object.fromEntries([...Object.entries(record ?? {}), [name, value]]) as Record<string, T>;
}

/**
 * A record without what is kept under a name.
 *
 * @example withoutValue({ d1: 5, d2: 7 }, "d1") // { d2: 7 }
 */
export function withoutValue<T>(record: Readonly<Record<string, T>> | undefined, name: string): Record<string, T> {
  return Object.fromEntries(Object.entries(record ?? {}).filter(([key]) => key !== name));
}
