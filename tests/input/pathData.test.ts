import { readPathData } from '@/core/input/svg/pathData';
import fc from '../support/seeded';

/** A number in one of the ways that SVG allows (SVG 1.1, 8.3.9), with what JavaScript reads it as. */
const written = fc
  .record({
    sign: fc.constantFrom('', '', '-', '+'),
    whole: fc.oneof(fc.nat(9), fc.nat(2000), fc.nat(999_999_999)).map(String),
    after: fc.option(fc.stringMatching(/^[0-9]{1,18}$/), { freq: 2 }),
    bare: fc.boolean(),
    power: fc.option(fc.record({ e: fc.constantFrom('e', 'E'), sign: fc.constantFrom('', '-', '+'), by: fc.nat(4) }), {
      freq: 4,
    }),
  })
  .map(
    ({ sign, whole, after, bare, power }) =>
      `${sign}${after !== null && bare ? '' : whole}${after === null ? '' : `.${after}`}${power ? `${power.e}${power.sign}${power.by}` : ''}`,
  )
  .filter((t) => Math.abs(Number(t)) < 1e9);

const between = fc.constantFrom(' ', ',', ' , ', '\n', '\t ,', '  ');
/** Numbers one after another, with nothing between where the next begins by itself. */
function row(numbers: readonly string[], gaps: readonly string[]): string {
  return numbers.map((n, i) => (i === 0 ? '' : /^[+-]/.test(n) && gaps[i] === ' ' ? '' : gaps[i]) + n).join('');
}

test('numbers in every way of writing are exactly what Number makes of them', () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(written, between), { minLength: 2, maxLength: 40 }), (parts) => {
      const numbers = parts.slice(0, parts.length & ~1).map(([n]) => n);
      const { path, whole } = readPathData(
        `M${row(
          numbers,
          parts.map(([, g]) => g),
        )}`,
      );
      const expected: number[] = [];
      for (let i = 0; i < numbers.length; i += 2) expected.push(i ? 1 : 0, Number(numbers[i]), Number(numbers[i + 1]));
      // −0 and 0 are the same place.
      expect([path.map((v) => v + 0), whole]).toEqual([expected.map((v) => v + 0), true]);
    }),
    { numRuns: 300 },
  ));

test('a number may begin where the one before has its point already', () => {
  expect(readPathData('M.5.5.25.75-1-.5+2+.5').path).toEqual([0, 0.5, 0.5, 1, 0.25, 0.75, 1, -1, -0.5, 1, 2, 0.5]);
});

test('relative and absolute commands draw the same', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.constantFrom('l', 'h', 'v', 'c', 's', 'q', 't', 'm', 'z'),
          fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 6, maxLength: 6 }),
        ),
        { maxLength: 12 },
      ),
      (commands) => {
        const count: Readonly<Record<string, number>> = { l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, m: 2, z: 0 };
        let [x, y, sx, sy] = [10, 20, 10, 20];
        let relative = 'M10 20';
        let absolute = 'M10 20';
        for (const [kind, all] of commands) {
          const n = all.slice(0, count[kind]);
          relative += kind + n.join(' ');
          absolute +=
            kind.toUpperCase() +
            n.map((v, i) => v + (kind === 'v' ? y : kind === 'h' || i % 2 === 0 ? x : y)).join(',');
          if (kind === 'z') [x, y] = [sx, sy];
          else if (kind === 'h') x += n[0];
          else if (kind === 'v') y += n[0];
          else [x, y] = [x + n[n.length - 2], y + n[n.length - 1]];
          if (kind === 'm') [sx, sy] = [x, y];
        }
        const [a, b] = [readPathData(relative), readPathData(absolute)];
        expect(a.whole && b.whole).toBe(true);
        expect(a.path).toHaveLength(b.path.length);
        a.path.forEach((v, i) => expect(Math.abs(v - b.path[i])).toBeLessThan(1e-9));
      },
    ),
  ));

test('a short path after a long one reads nothing of it; letters that are no part of paths end one', () => {
  const long = `M0 0${'L123456.5 987654.25'.repeat(2000)}`;
  expect(readPathData(long).path).toHaveLength(3 + 6000);
  expect(readPathData('M1 2L3')).toEqual({ path: [0, 1, 2], whole: false });
  expect(readPathData('')).toEqual({ path: [], whole: true });
  for (const mistake of ['M1 2L3 4 é L5 6', 'M1 2L3 4\u00a0L5 6', 'M1 2L3 4 \u{1F6A2}', 'M1 2L3 4\0L5 6'])
    expect(readPathData(mistake)).toEqual({ path: [0, 1, 2, 1, 3, 4], whole: false });
});

test('whatever is in it: up to the mistake, never an exception, never a place that is no number', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.constantFrom(
          'M',
          'm',
          'L',
          'c',
          'A',
          'a',
          'z',
          'T',
          's',
          '1',
          '0',
          '-',
          '.',
          'e9',
          ',',
          ' ',
          '1e400',
          '\ud800',
          'NaN',
          '0 0 1 1',
        ),
        { maxLength: 60 },
      ),
      (parts) => {
        const { path } = readPathData(parts.join(''));
        expect(path.every(Number.isFinite)).toBe(true);
      },
    ),
    { numRuns: 500 },
  ));
