import type { Design } from './schema';

/**
 * The design as JSON text with the keys of every object in alphabetical order, so that the same design gives the same
 * bytes whatever way it was reached (an undo or a parser may put keys in another order).
 */
export function serializeDesign(design: Design): string {
  return JSON.stringify(design, (_key, value: unknown) => {
    if (value === null || typeof value !== 'object' || Array.isArray(value)) return value;
    const map = value as Record<string, unknown>;
    return Object.fromEntries(Object.keys(map).sort().map((k) => [k, map[k]]));
  });
}
