import 'fake-indexeddb/auto';

// Node's own structuredClone makes objects of another realm inside a test: plain objects must stay plain here, as in a
// page.
globalThis.structuredClone = <T>(value: T): T => clone(value) as T;

function clone(v: unknown): unknown {
  if (v instanceof Uint8Array || v instanceof Float64Array) return v.slice();
  if (Array.isArray(v)) return v.map(clone);
  if (v === null || typeof v !== 'object') return v;
  if (v instanceof Date) return new Date(v);
  return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, clone(x)]));
}
