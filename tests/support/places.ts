/** Every place in a JSON value: what holds it, and under which key. */
export function placesOf(value: unknown): [Record<string, unknown>, string][] {
  const places: [Record<string, unknown>, string][] = [];
  const walk = (v: unknown) => {
    if (typeof v !== 'object' || v === null) return;
    for (const key of Object.keys(v)) {
      places.push([v as Record<string, unknown>, key]);
      walk((v as Record<string, unknown>)[key]);
    }
  };
  walk(value);
  return places;
}
