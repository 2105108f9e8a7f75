// The bench's own measuring, on a machine whose pace is known: it is fast and slow by turns, as one that shares its
// cores is.
import {
  atFullPace,
  inTurns,
  machine,
  measured,
  quantileInSteps,
  quietTurns,
  type Row,
} from '../../scripts/bench/measure';
import { steadinessOf, tableOf } from '../../scripts/bench/table';
import { random } from '../support/random';

/** Work done at a pace that changes every so often between one and nearly two ms a unit. */
function uneven(seed: number, every: number) {
  const next = random(seed);
  let [now, slow, until] = [0, false, 0];
  return {
    now: () => now,
    pace: () => (slow ? 1.9 : 1) * (1 + 0.02 * next()),
    takenShare: () => () => 0,
    work(units: number) {
      for (let left = units; left > 0; left--) {
        if (now >= until) [slow, until] = [next() < 0.5, now + every * (0.3 + 1.4 * next())];
        now += slow ? 1.9 : 1;
      }
    },
  };
}

const real = { ...machine };
afterEach(() => void Object.assign(machine, real));

// Paces that change within a run, from run to run, and hardly ever.
test.each([40, 300, 1500, 6000])(
  'a ratio measured three times is the same within 10 %%, at a pace that lasts %i ms',
  async (every) => {
    for (let run = 1; run <= 3; run++) {
      const m = uneven(run * 97 + every, every);
      Object.assign(machine, m);
      const [ours, reference] = await inTurns(
        15,
        2,
        () => m.work(500),
        () => m.work(150),
      );
      expect(ours).toHaveLength(15);
      const { ratio, low, high } = measured(ours, reference);
      expect(Math.abs(ratio / (500 / 150) - 1)).toBeLessThan(0.1);
      expect(low).toBeLessThanOrEqual(ratio);
      expect(high).toBeGreaterThanOrEqual(ratio);
    }
  },
);

test('a time is that of the machine at its best pace', async () => {
  const m = uneven(5, 400);
  Object.assign(machine, m);
  const times = await atFullPace(20, 3, () => m.work(20));
  expect(times).toHaveLength(20);
  expect(Math.max(...times)).toBeLessThan(24);
});

test('turns in which others had the machine are left out, and no more than half as many again are made', async () => {
  let turn = 0;
  Object.assign(machine, { takenShare: () => () => (turn % 3 === 0 ? 0.3 : 0) });
  expect(await quietTurns(6, 0, async () => ++turn)).toEqual([1, 2, 4, 5, 7, 8]);
  turn = 0;
  Object.assign(machine, { takenShare: () => () => 0.3 - turn / 100 });
  // Never quiet: the quietest of nine.
  expect((await quietTurns(6, 0, async () => ++turn)).sort()).toEqual([4, 5, 6, 7, 8, 9]);
  expect(turn).toBe(9);
});

test('the table tells the middle run and how many rows came to the same three times', () => {
  const row = (what: string, ratio: number, turns = 9): Row => ({
    what,
    aim: 1,
    note: '',
    ours: ratio * 10,
    reference: 10,
    ratio,
    low: ratio,
    high: ratio,
    turns,
  });
  const runs = [
    [row('a / b', 9), row('c / d', 0.5), row('e / the bar', 0.5, 1)],
    [row('a / b', 0.9), row('c / d', 0.5), row('e / the bar', 0.5, 1)],
    [row('a / b', 1), row('c / d', 0.7), row('e / the bar', 0.52, 1)],
    [row('a / b', 1.05), row('c / d', 0.5), row('e / the bar', 0.49, 1)],
  ];
  expect(steadinessOf(runs)).toBe(
    'In the last three runs 1 of 2 rows that are held against other work lie within 10 % of their middle, and 1 of 1 that are held against a bar.',
  );
  expect(steadinessOf(runs.slice(2))).toBe('');
  const table = tableOf(runs.slice(1));
  expect(table).toContain('| a / b | 10 ms | 10 ms | 1.00 | 0.90 · 1.00 · 1.05 | 1.00–1.00, 9 turns | ≤ 1 met |');
  expect(tableOf([[row('a / b', 1.05)]])).toContain('**missed**');
});

test('a quantile of times told in steps of 8 ms lies by that of the times themselves, and does not jump by a step', () => {
  const apart: number[] = [];
  for (let seed = 1; seed <= 40; seed++) {
    const next = random(seed);
    // Answers wait for the next frame: one or two of them, and a few three.
    const times = Array.from({ length: 104 }, () => 14 + 16.7 * next() + (next() < 0.3 ? 8 * next() : 0));
    const told = times.map((t) => Math.round(t / 8) * 8);
    const exact = times.toSorted((a, b) => a - b)[Math.floor(0.95 * times.length)];
    apart.push(quantileInSteps(told, 0.95, 8) - exact);
  }
  expect(Math.max(...apart.map(Math.abs))).toBeLessThan(6);
  // Where times thin out towards the end it tells somewhat too much, never as much as half a step.
  expect(Math.abs(apart.reduce((sum, d) => sum + d, 0) / apart.length)).toBeLessThan(4);
  // One time more in the upper step moves it by little.
  const upper = (n: number) =>
    quantileInSteps([...Array<number>(100 - n).fill(32), ...Array<number>(n).fill(40)], 0.95, 8);
  expect(upper(6) - upper(5)).toBeLessThan(1.5);
  expect(upper(5) - upper(4)).toBeLessThan(1.5);
  expect(upper(0)).toBeCloseTo(35.6);
});
