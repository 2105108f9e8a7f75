import type LineBreaker from 'linebreak';

let Breaker: typeof LineBreaker | null = null;

/** Loads what tells where lines may be broken (UAX 14): an engine, which comes with the faces. */
export async function loadLineBreaks(): Promise<void> {
  Breaker ??= (await import('linebreak')).default;
}

/** Where a text may be broken, in order; its end is the last. Only its end until what tells it is loaded. */
export function breaksOf(text: string): number[] {
  if (!Breaker) return [text.length];
  const places: number[] = [];
  const breaker = new Breaker(text);
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) places.push(b.position);
  return places;
}
