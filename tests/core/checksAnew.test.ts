import { encode } from 'fast-png';
import { checkDesign } from '@/core/check/check';
import { assetName } from '@/core/file/assets';
import { openEngines, prepare, type Engines } from '@/core/engines';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { DesignBuilder, flat } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { record } from '@/core/edit/history';
import { ALL, recipeOf, type Step } from '../support/commands';
import { random } from '../support/random';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
/** The very same design of which nothing is remembered. */
const fresh = (d: Design): Design => JSON.parse(JSON.stringify(d)) as Design;

test('only pages that changed are looked at anew: the others’ findings are the very same', async () => {
  const b = new DesignBuilder(newDesign('Pages', setupOf(200, 200), making), making);
  const thin = (name: string) =>
    b.shape(name, 'rectangle', { x: 40, y: 40, w: 0.1, h: 60 }, { fill: flat(cmyk(0, 0, 0, 100)) });
  const [one, two] = [thin('One'), thin('Two')];
  b.place(0, [one]);
  b.place(1, [two]);
  const d = b.done();
  const palette = await prepare(engines, d);
  const look = (x: Design) => checkDesign(x, engines.builder, palette).filter((f) => f.code === 'fill.sliver');
  const first = look(d);
  expect(first.map((f) => f.page)).toEqual([1, 2]);
  const changed: Design = { ...d, nodes: { ...d.nodes, [two]: { ...d.nodes[two], name: 'Other' } } };
  const second = look(changed);
  expect(second[0]).toBe(first[0]);
  expect(second[1]).not.toBe(first[1]);
  expect(second[1].message).toContain('Other');
  // A page that moves is counted anew.
  const turned: Design = { ...d, pages: [d.pages[1], d.pages[0]] };
  expect(look(turned).map((f) => [f.page, f.node])).toEqual([
    [1, two],
    [2, one],
  ]);
});

test('whatever is changed, what is found is as if looked for afresh', async () => {
  const start = demoDesigns().find((x) => x.file.includes('programme'))!.design;
  const palette = await prepare(engines, start);
  const chance = random(16);
  let d = start;
  checkDesign(d, engines.builder, palette);
  for (let i = 0; i < (process.env.HOLVET_FULL ? 60 : 2); i++) {
    const n = (most: number) => Math.floor(chance() * most);
    const step: Step = [n(ALL), n(200), n(200), n(600) - 300, n(600) - 300];
    d = record(d, 'Step', recipeOf(step, d, engines))?.design ?? d;
    const now = checkDesign(d, engines.builder, await prepare(engines, d));
    const copy = fresh(d);
    expect(now).toEqual(checkDesign(copy, engines.builder, await prepare(engines, copy)));
  }
}, 240_000);

describe('a picture that was blown up', () => {
  async function found(sharp: boolean): Promise<string[]> {
    const [w, h] = [400, 300];
    const chance = random(5);
    // Grains of three pixels, joined by straight lines; or of one.
    const grain = Array.from({ length: 140 * 110 }, () => chance() * 255);
    const coarse = (x: number, y: number) => {
      const [i, j] = [Math.floor(x / 3), Math.floor(y / 3)];
      const [fx, fy] = [x / 3 - i, y / 3 - j];
      const g = (a: number, c: number) => grain[(j + c) * 140 + i + a];
      return (g(0, 0) * (1 - fx) + g(1, 0) * fx) * (1 - fy) + (g(0, 1) * (1 - fx) + g(1, 1) * fx) * fy;
    };
    const data = new Uint8Array(w * h * 3);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        // A picture of half the size, enlarged: soft everywhere.
        const v = sharp ? chance() * 255 : coarse(x, y);
        data.fill(v, 3 * (y * w + x), 3 * (y * w + x) + 3);
      }
    const bytes = encode({ width: w, height: h, data, channels: 3, depth: 8 });
    const file = await assetName(bytes, 'png');
    const own = await openEngines({
      ...engines.env,
      asset: async (name) => (name.endsWith(file) ? bytes : engines.env.asset(name)),
    });
    const b = new DesignBuilder(newDesign('Blown', setupOf(300, 300, { bleed: 0 }), making), making);
    const picture = b.picture({ name: 'Dusk', file, width: w, height: h, space: 'rgb' });
    b.place(0, [
      b.shape(
        'Frame',
        'rectangle',
        { x: 100, y: 100, w: 120, h: 90 },
        { fill: { kind: 'picture', picture, geometry: [120, 0, 0, 90, 0, 0], overprint: false } },
      ),
    ]);
    const d = b.done();
    return checkDesign(d, own.builder, await prepare(own, d)).map((f) => f.code);
  }
  test('is told, and one with detail in every pixel is not', async () => {
    expect(await found(true)).not.toContain('picture.blownUp');
    expect(await found(false)).toContain('picture.blownUp');
  });
});
