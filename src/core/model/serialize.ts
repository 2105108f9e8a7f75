import type { Design } from './schema';
import { asItWas } from './unknown';

/**
 * The design as JSON text with the keys of every object in alphabetical order, so that the same design gives the same
 * bytes whatever way it was reached (an undo or a parser may put keys in another order).
 */
export function serializeDesign(design: Design): string {
  return JSON.stringify(design, (_key, value: unknown) => {
    if (value === null || typeof value !== 'object' || Array.isArray(value)) return value;
    const unknown = (value as { kind?: unknown }).kind === 'unknown' && 'was' in value;
    const map = unknown ? asItWas(value as Parameters<typeof asItWas>[0]) : (value as Record<string, unknown>);
    return Object.fromEntries(
      Object.keys(map)
        .sort()
        .map((k) => [k, map[k]]),
    );
  });
}
