import { pasteClip } from '@/core/edit/clip';
import { record } from '@/core/edit/history';
import { readSvg } from '@/core/input/svg/read';
import { newDesign } from '@/core/model/defaults';
import type { Design, Page } from '@/core/model/schema';
import { writeSvg } from '@/core/output/svg/write';
import { rasterPlates } from '@/core/render/plates';
import { regionOf } from '@/core/render/region';
import { trimRect } from '@/core/scene/scene';
import { equip, prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import type { Grey } from '../support/agree';
import { faults } from '../support/faults';
import { coloursDesign, drawnDesign, making, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 60;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

async function plates(design: Design, page: Page): Promise<Map<string, Grey>> {
  const palette = await prepare(engines, design);
  const scene = engines.builder.build(design, page);
  const p = rasterPlates(scene, palette, regionOf(trimRect(scene), DPI))!;
  return new Map(p.channels.map((ink, i) => [ink, { ...p.region, data: p.data[i].map((v) => 255 - v) }]));
}

/** A page through an SVG file of ours and back. */
async function through(design: Design, page: Page): Promise<{ design: Design; notes: readonly string[]; svg: string }> {
  const palette = await prepare(engines, design);
  const { svg } = await writeSvg(engines.builder.build(design, page), palette, design.name, (f) =>
    engines.env.asset(f),
  );
  const read = await readSvg(new TextEncoder().encode(svg), 'page', { ...engines.env, fonts: engines.fonts });
  const base = { ...newDesign('Back', design.setup, making), profile: design.profile };
  const back = record(
    base,
    'Place',
    (d) => void pasteClip(d, base.pages[0].id, read.clip, making.newId, [1, 0, 0, 1, 0, 0]),
  )!.design;
  await equip(engines, back);
  return { design: back, notes: read.notes, svg };
}

/** In CI a page of a design, without the large poster, and one page of samples. */
const FULL = process.env.HOLVET_FULL !== undefined;
const PAGES = demoDesigns()
  .slice(FULL ? 0 : 1)
  .flatMap(({ file, design }) =>
    design.pages.slice(0, FULL ? Infinity : 1).map((page, i) => ({ name: `${file}, page ${i + 1}`, design, page })),
  );
const samples = (FULL ? [sampleDesign(), coloursDesign(), drawnDesign()] : [coloursDesign()]).map((design) => ({
  name: design.name,
  design,
  page: design.pages[0],
}));

// Source: our own plates before and after; the rule of “plates agree” of tests/support/agree.ts.
describe('SVG written by us, read back: the same plates', () => {
  test.each([...PAGES, ...samples].map((p) => [p.name, p] as const))('%s', async (name, { design, page }) => {
    const back = await through(design, page);
    expect(back.notes).toEqual([]);
    expect(
      faults(await plates(design, page), await plates(back.design, back.design.pages[0]), `SVG and back: ${name}`),
    ).toEqual([]);
  });
});
