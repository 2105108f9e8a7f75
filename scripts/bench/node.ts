// Runs in Node: PDF of 10,000 paths against another writer, and what the core does beside. Prints one JSON line.
import { wordsBench } from './words';
import path from 'node:path';
import { buildPaletteSync, utils } from 'image-q';
import PDFDocument from 'pdfkit';
import { liftPalette } from '../../src/core/colour/lift';
import { COORDS } from '../../src/core/geometry/path';
import { writePdf } from '../../src/core/output/pdf/write';
import { walk } from '../../src/core/scene/walk';
import { openEngines, prepare } from '../../src/core/engines';
import { nodeEnv } from '../../src/env/node';
import { crowd } from './crowd';
import { inTurns, measured } from './measure';
import { combineBench, hitBench } from './drawing';
import { depthBench, regionsBench, wobbleBench } from './lines';
import { poolsBench } from './pools';

const engines = await openEngines(nodeEnv(path.join(process.cwd(), 'public')));
const big = crowd(10_000);
const palette = await prepare(engines, big);
const scene = engines.builder.build(big, big.pages[0]);
const [ours, theirs] = await inTurns(
  11,
  2,
  () => writePdf(big, big.pages, engines.builder, palette, engines.env, { marks: false }, { step: () => {} }),
  () =>
    new Promise<void>((resolve) => {
      const doc = new PDFDocument({ size: [scene.width, scene.height], compress: true });
      doc.on('data', () => {});
      doc.on('end', resolve);
      walk(scene.root, (item) => {
        const p = item.placed.path;
        for (let i = 0; i < p.length; i += 1 + COORDS[p[i]]) {
          if (p[i] === 0) doc.moveTo(p[i + 1], p[i + 2]);
          else if (p[i] === 1) doc.lineTo(p[i + 1], p[i + 2]);
          else if (p[i] === 2) doc.bezierCurveTo(p[i + 1], p[i + 2], p[i + 3], p[i + 4], p[i + 5], p[i + 6]);
          else doc.closePath();
        }
        const [c, m, y, k] = item.paint.kind === 'colour' ? palette.mix(item.paint.colour) : [0, 0, 0, 1];
        doc.fill([c * 100, m * 100, y * 100, k * 100]);
      });
      doc.end();
    }),
);

// One picture of a megapixel: sky, water, grain and a small strong accent.
const [W, H] = [1024, 1024];
const pixels = new Uint8ClampedArray(W * H * 4);
let noise = 7;
for (let i = 0; i < W * H; i++) {
  noise = (Math.imul(noise, 1664525) + 1013904223) >>> 0;
  const [x, y, g] = [i % W, Math.floor(i / W), (noise >>> 24) / 12];
  const accent = (x - 700) ** 2 + (y - 620) ** 2 < 60 ** 2;
  pixels.set(
    accent
      ? [205, 36, 46, 255]
      : y < 500
        ? [40 + y / 12 + g, 60 + y / 8 + g, 110 + y / 9 + g, 255]
        : [24 + x / 30 + g, 60 + g, 92 - y / 40 + g, 255],
    4 * i,
  );
}
const container = utils.PointContainer.fromUint8Array(Uint8Array.from(pixels), W, H);
const [lifting, wuquant] = await inTurns(
  2,
  1,
  () => liftPalette(pixels, { count: 8, purpose: 'asSeen' }),
  () => buildPaletteSync([container], { colors: 8, paletteQuantization: 'wuquant', colorDistanceFormula: 'euclidean' }),
);

const field = await poolsBench(engines);
const hits = await hitBench(engines);
const gears = await combineBench(engines);
const words = await wordsBench(engines);
const wobble = await wobbleBench(engines);
const depth = await depthBench(engines);
const areas = await regionsBench(engines);

/** Rows of the table: what, the measures, how much is aimed at, a note. */
console.log(
  JSON.stringify([
    { what: 'PDF of 10,000 paths / pdfkit writing the same paths', ...measured(ours, theirs), aim: 0.4, note: '' },
    { what: 'lifting 8 colours out of 1 Mpx / wuquant of image-q', ...measured(lifting, wuquant), aim: 0.2, note: '' },
    { what: 'plates of 8 pools over 1 Mpx / of one linear gradient', ...field, aim: 4, note: '' },
    {
      what: 'finding the front object at a place among 10,000 / among 100 that cover as much',
      ...hits,
      aim: 3,
      note: 'in µs; 2,000 places a turn',
    },
    {
      what: 'move of one of 20 combined gears, all but the drawing / the bare engine on what rests and what moves',
      ...gears.measured,
      aim: 2,
      note: `${gears.segments} pieces rest`,
    },
    {
      what: 'a frame of words laid out for the first time / HarfBuzz alone shaping them',
      ...words.layout,
      aim: 4,
      note: `${words.glyphs} glyphs; 2,000 in 20 ms is asked`,
    },
    {
      what: 'a key among 5,000 words / among 500, all but the drawing',
      ...words.key,
      aim: 2,
      note: 'among 500 in 8 ms is asked',
    },
    {
      what: 'a node moved of a dashed, wobbling line of 2,000 pieces, all but the drawing / the bar',
      ...wobble,
      aim: 1,
      note: '',
    },
    { what: 'the depth of a word of 12 letters turned, all but the drawing / the bar', ...depth, aim: 1, note: '' },
    {
      what: 'areas of 40 circles, found anew after one moved / the bar',
      ...areas.find,
      aim: 1,
      note: `${areas.areas} areas`,
    },
    { what: 'the area below the pointer among those of 40 circles / the bar', ...areas.hover, aim: 1, note: '' },
  ]),
);
