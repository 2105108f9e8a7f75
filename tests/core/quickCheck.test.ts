import { isDeepStrictEqual } from 'node:util';
import * as z from 'zod/mini';
import { quickCheck, wholeCheck } from '@/core/model/quickCheck';
import { designSchema, nodeSchema, paintSchema, type Design } from '@/core/model/schema';
import { demoDesigns } from '@/demo/demos';
import fc from '../support/seeded';
import { FULL } from '../support/measured';

// What is compared with: the schema itself, asked the long way (the library's own answer).
const slow = (schema: z.ZodMiniType, value: unknown) => schema.safeParse(value);

/** Every place of a value, as the keys that lead to it. */
function places(value: unknown, at: readonly string[] = []): (readonly string[])[] {
  if (typeof value !== 'object' || value === null) return [at];
  const keys = Object.keys(value);
  // Of long lists a few are as good as all.
  const some = keys.length > 12 ? [...keys.slice(0, 6), ...keys.slice(-6)] : keys;
  return [at, ...some.flatMap((k) => places((value as Record<string, unknown>)[k], [...at, k]))];
}
const STRANGE: readonly unknown[] = [
  undefined,
  null,
  NaN,
  Infinity,
  -1,
  0,
  0.5,
  1e12,
  2 ** 53,
  '',
  'x',
  'constructor',
  '__proto__',
  'a b',
  'colour',
  'x'.repeat(300),
  true,
  [],
  {},
  [1, 2, 3],
  new Array(3),
  new Date(0),
  { kind: 'none' },
  { kind: 'none', more: 1 },
  { ink: 'a', tint: 1 },
  JSON.parse('{"__proto__": {"id": "x"}}'),
];

function changed(value: unknown, at: readonly string[], how: number): unknown {
  if (!at.length) return STRANGE[how % STRANGE.length];
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string, unknown>;
  const [key, ...rest] = at;
  if (!rest.length && how % 7 === 0) {
    if (Array.isArray(copy)) copy.splice(Number(key), 1);
    else delete copy[key];
  } else if (!rest.length && how % 7 === 1 && !Array.isArray(copy)) copy[`${key}x`] = copy[key];
  else copy[key] = changed(copy[key], rest, how);
  return copy;
}

const designs = demoDesigns().map(({ design }) => JSON.parse(JSON.stringify(design)) as Design);
const isDesign = wholeCheck(designSchema);

test('sound designs are sound at once, and are then what the schema makes of them', () => {
  for (const d of designs) {
    expect(isDesign(d)).toBe(true);
    expect(slow(designSchema, d).data).toEqual(d);
  }
});

test('changed anywhere, in any way, a design is sound exactly when its schema takes it as it is', () => {
  const all = designs.map((d) => places(d));
  let refused = 0;
  let kept = 0;
  fc.assert(
    fc.property(fc.nat(), fc.nat(), fc.nat(), (which, where, how) => {
      const i = which % designs.length;
      const value = changed(designs[i], all[i][where % all[i].length], how);
      const quick = isDesign(value);
      const parsed = slow(designSchema, value);
      // What the schema would take only by making something else of it (a key named __proto__, a date) goes the long
      // way.
      expect(quick).toBe(parsed.success && isDeepStrictEqual(parsed.data, value));
      if (quick) kept++;
      else refused++;
    }),
    { numRuns: FULL ? 1500 : 400 },
  );
  expect(Math.min(refused, kept)).toBeGreaterThan(30);
});

test.each([
  ['a paint', paintSchema],
  ['an object', nodeSchema],
] as const)('%s made of strange things is sound exactly when its schema says so', (_, schema) => {
  const check = wholeCheck(schema);
  for (const v of STRANGE) expect([v, check(v)]).toEqual([v, slow(schema, v).success]);
});

test('a schema that it does not know is asked itself', () => {
  const odd = z.strictObject({ when: z.iso.datetime(), list: z.set(z.number()), big: z.int().check(z.multipleOf(3)) });
  const check = quickCheck(odd);
  const sound = { when: '2026-11-29T08:00:00Z', list: new Set([1]), big: 9 };
  expect(check(sound)).toBe(true);
  for (const [key, bad] of Object.entries({ when: 'today', list: new Set(['a']), big: 10 }))
    expect([key, check({ ...sound, [key]: bad })]).toEqual([key, false]);
});

test('what lies in a value many times is looked at once, and anew when it is asked again', () => {
  const check = wholeCheck(z.strictObject({ all: z.array(z.array(z.number())) }));
  const one = [1, 2] as unknown[];
  const value = { all: [one, one, [3], one] };
  expect(check(value)).toBe(true);
  one[1] = 'two';
  expect(check(value)).toBe(false);
  one[1] = 2;
  expect(check(value)).toBe(true);
});
