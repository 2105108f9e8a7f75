/**
 * What a record itself holds under a key. Keys that come from files may be words that every object answers to
 * (`constructor`, `toString`): a plain look-up would find those.
 */
export function own<T>(record: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}

/**
 * A table that is looked up by words from outside: a record without a prototype, which holds its own rows and nothing
 * else.
 */
export function table<T>(rows: Readonly<Record<string, T>>): Readonly<Record<string, T>> {
  return Object.assign(Object.create(null) as Record<string, T>, rows);
}
