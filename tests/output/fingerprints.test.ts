import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { QUIET } from '@/core/output/job';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import type { Design } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import { GRADIENT_KINDS, gradientPage } from '../support/gradients';
import { coloursDesign, drawnDesign, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

/** What files and plates hash to, by page. Where they are meant to change: HOLVET_FINGERPRINTS=1 writes them anew. */
const FILE = path.resolve(process.cwd(), 'tests/data/fingerprints.json');
const DPI = 50;

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const sha = (...parts: (Uint8Array | string)[]): string =>
  parts
    .reduce((h, p) => h.update(p), createHash('sha256'))
    .digest('hex')
    .slice(0, 24);

async function fingerprints(name: string, design: Design): Promise<Record<string, string>> {
  const palette = await prepare(engines, design);
  const out: Record<string, string> = {};
  for (const [i, page] of design.pages.entries()) {
    const scene = engines.builder.build(design, page);
    const { channels, data } = pagePlates(scene, palette, DPI);
    out[`${name}, page ${i + 1}, plates`] = sha(channels.join(), ...data);
    out[`${name}, page ${i + 1}, SVG`] = sha(
      (await writeSvg(scene, palette, design.name, (f) => engines.env.asset(f))).svg,
    );
  }
  if (!palette.screen)
    out[`${name}, PDF`] = sha(
      await writePdf(design, design.pages, engines.builder, palette, engines.env, { marks: true }, QUIET),
    );
  return out;
}

test('plates, SVG and PDF of all demo designs and test pages are the same bytes as ever', async () => {
  const pages: [string, Design][] = [
    ...demoDesigns().map(({ file, design }) => [file, design] as [string, Design]),
    ['sample page', sampleDesign()],
    ['page of colours', coloursDesign()],
    ['drawn page', drawnDesign()],
    ...GRADIENT_KINDS.map((kind) => [`gradient ${kind}`, gradientPage(kind)] as [string, Design]),
  ];
  const now: Record<string, string> = {};
  for (const [name, design] of pages) Object.assign(now, await fingerprints(name, design));
  if (process.env.HOLVET_FINGERPRINTS) writeFileSync(FILE, `${JSON.stringify(now, null, 2)}\n`);
  expect(now).toEqual(JSON.parse(readFileSync(FILE, 'utf8')));
});
