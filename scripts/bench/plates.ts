// Runs in Node, in a process of its own: plates of the poster against Ghostscript's. Prints one JSON line.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { writePdf } from '../../src/core/output/pdf/write';
import { rasterPlates } from '../../src/core/render/plates';
import { regionOf } from '../../src/core/render/region';
import { bleedRect } from '../../src/core/scene/scene';
import { openEngines, prepare } from '../../src/core/engines';
import { demoDesigns } from '../../src/demo/demos';
import { nodeEnv } from '../../src/env/node';
import { inTurns, measured, median } from './measure';

const engines = await openEngines(nodeEnv(path.join(process.cwd(), 'public')));
const poster = demoDesigns()[0].design;
const posterPalette = await prepare(engines, poster);
const posterScene = engines.builder.build(poster, poster.pages[0]);
const region = regionOf(bleedRect(posterScene), 150);
const dir = mkdtempSync(path.join(tmpdir(), 'holvet-bench-'));
const gs = (file: string, extra: string[] = []) =>
  execFileSync('gs', [
    '-q',
    '-dNOPAUSE',
    '-dBATCH',
    '-dSAFER',
    '-sDEVICE=tiffsep',
    '-r150',
    '-dUseBleedBox',
    '-dGraphicsAlphaBits=4',
    '-dTextAlphaBits=4',
    '-dUsePDFX3Profile',
    ...extra,
    `-sOutputFile=${dir}/p%03d.tif`,
    file,
  ]);
writeFileSync(
  `${dir}/poster.pdf`,
  await writePdf(
    poster,
    poster.pages,
    engines.builder,
    posterPalette,
    engines.env,
    { marks: true },
    { step: () => {} },
  ),
);
// Its start-up: the same device and profile on a page of one point.
const tiny = {
  ...poster,
  setup: { ...poster.setup, width: 4, height: 4, bleed: 0 },
  pages: [{ ...poster.pages[0], children: [] }],
  nodes: {},
  stories: {},
};
writeFileSync(
  `${dir}/tiny.pdf`,
  await writePdf(tiny, tiny.pages, engines.builder, posterPalette, engines.env, { marks: false }, { step: () => {} }),
);
const [raster, full, startUp] = await inTurns(
  4,
  1,
  () => rasterPlates(posterScene, posterPalette, region),
  () => gs(`${dir}/poster.pdf`),
  () => gs(`${dir}/tiny.pdf`),
);
rmSync(dir, { recursive: true, force: true });

console.log(
  JSON.stringify([
    {
      what: 'plates of the poster at 150 dpi, raster only / tiffsep less its start-up',
      ...measured(
        raster,
        full.map((v, i) => v - startUp[i]),
      ),
      aim: 0.33,
      note: `start-up ${Math.round(median(startUp))} ms`,
    },
  ]),
);
