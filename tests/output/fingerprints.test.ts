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
import { FULL } from '../support/measured';
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

// All made, and in this order: their ids are counted.
const PAGES: [string, Design][] = [
  ...demoDesigns().map(({ file, design }) => [file, design] as [string, Design]),
  ['sample page', sampleDesign()],
  ['page of colours', coloursDesign()],
  ['drawn page', drawnDesign()],
  ...GRADIENT_KINDS.map((kind) => [`gradient ${kind}`, gradientPage(kind)] as [string, Design]),
];
const KNOWN = JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, string>;
const ANEW = process.env.HOLVET_FINGERPRINTS !== undefined;
const now: Record<string, string> = {};

// In CI every fifth one, without the large poster and the programme of twelve pages.
test.each(PAGES.filter(([, d], i) => FULL || ANEW || (i % 5 === 1 && d.pages.length < 8)))(
  '%s: plates, SVG and PDF are the same bytes as ever',
  async (name, design) => {
    const made = await fingerprints(name, design);
    Object.assign(now, made);
    if (!ANEW) expect(made).toEqual(Object.fromEntries(Object.keys(made).map((key) => [key, KNOWN[key]])));
  },
  // Twelve pages take their time where others work too.
  300_000,
);
afterAll(() => {
  if (ANEW) writeFileSync(FILE, `${JSON.stringify(now, null, 2)}\n`);
});
