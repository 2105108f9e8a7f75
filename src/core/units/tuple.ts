/** `map` of a list of fixed length, which keeps its length in the type. */
export function mapTuple<T extends readonly number[]>(list: T, by: (value: number, index: number) => number): T {
  return list.map(by) as unknown as T;
}
