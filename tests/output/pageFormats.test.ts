import { execFileSync } from 'node:child_process';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { tryOut } from '@/core/edit/history';
import { masterFromPage, setGround } from '@/core/edit/masters';
import { addPage, setEndAtFold, setFacing } from '@/core/edit/pages';
import { setFormat } from '@/core/edit/sheetSetup';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { testEngines } from '../support/engines';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';

const DPI = 144;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `g${n++}`;

const sweep = (w: number, h: number) =>
  firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: w, y1: h },
    [
      { offset: 0, colour: cmyk(90, 40, 0, 0) },
      { offset: 1, colour: cmyk(0, 50, 90, 0) },
    ],
    false,
  );

function artwork(width: number, height: number, bleed: number): Design {
  const b = new DesignBuilder(newDesign('Formats', setupOf(width, height, { bleed }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  b.place(0, [
    b.shape('Sweep', 'rectangle', { x: 20, y: 20, w: 150, h: 60 }, { fill: sweep(150, 60) }),
    b.shape('Star', 'star', { x: 60, y: 50, w: 60, h: 60 }, { fill: flat(ember, true) }),
    b.displayText('Words', 60, 112, [{ runs: [runOf('Lantern Walk', 20)] }]),
  ]);
  return b.done();
}

// Against the same artwork as a design of that format, and Ghostscript tiffsep of the PDF.
test('a page with a format of its own prints as a design of that format would; its boxes are its own', async () => {
  const whole = tryOut(artwork(300, 200, 9), (d) => {
    masterFromPage(d, d.pages[0].id, { id: 'ordinary', name: 'Ordinary' });
    setGround(d, 'ordinary', { ...sweep(1, 1) });
    const card = addPage(d, d.pages[0].id, newId);
    setFormat(d, card, { width: 190, height: 130, round: false });
    const round = addPage(d, card, newId);
    setFormat(d, round, { width: 150, height: 150, round: true });
  });
  const alone = tryOut(artwork(190, 130, 9), (d) => {
    masterFromPage(d, d.pages[0].id, { id: 'ordinary', name: 'Ordinary' });
    setGround(d, 'ordinary', { ...sweep(1, 1) });
  });
  await prepare(engines, whole);
  const ours = [0, 1, 2].map((i) => platesOf(engines, whole, DPI, i));
  const [first, card, round] = await Promise.all(ours);
  const expected = await platesOf(engines, alone, DPI);
  for (const [ink, plate] of expected) {
    expect([ink, card.get(ink)?.width, card.get(ink)?.height]).toEqual([ink, plate.width, plate.height]);
    expect([ink, card.get(ink)?.data]).toEqual([ink, plate.data]);
  }
  const pdf = await pdfOf(engines, whole);
  expect(await checkX4(pdf)).toEqual([]);
  const theirs = separate(pdf, DPI);
  for (const [i, plates] of [first, card, round].entries())
    expect(faults(plates, theirs[i], `page ${i + 1}`)).toEqual([]);
  const info = execFileSync('pdfinfo', ['-box', '-l', '3', '-'], { input: pdf, encoding: 'utf8' });
  const trims = [...info.matchAll(/TrimBox:\s+([\d.-]+)\s+([\d.-]+)\s+([\d.-]+)\s+([\d.-]+)/g)].map((m) =>
    m.slice(1).map(Number),
  );
  expect(trims.map(([x0, y0, x1, y1]) => [Math.round(x1 - x0), Math.round(y1 - y0)])).toEqual([
    [300, 200],
    [190, 130],
    [150, 150],
  ]);
});

// The two halves against the spread drawn as one page.
test('pages of unlike width meet at the fold: what reaches over prints on both as if they were one', async () => {
  const [left, right] = [120, 180];
  const spread = tryOut(artwork(right, 130, 0), (d) => {
    addPage(d, d.pages[0].id, newId);
    setFormat(d, d.pages[0].id, { width: left, height: 130, round: false });
    setFacing(d, 'left');
  });
  const one = await platesOf(engines, artwork(left + right, 130, 0), DPI);
  const halves = [await platesOf(engines, spread, DPI, 0), await platesOf(engines, spread, DPI, 1)];
  const starts = [0, (left * DPI) / 72];
  let inked = 0;
  for (const [ink, plate] of one)
    for (const [i, half] of halves.entries()) {
      const { width, height, data } = half.get(ink)!;
      let worst = 0;
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) {
          worst = Math.max(worst, Math.abs(data[y * width + x] - plate.data[y * plate.width + starts[i] + x]));
          if (i && data[y * width + x] !== data[0]) inked++;
        }
      expect([ink, i, worst <= 1]).toEqual([ink, i, true]);
    }
  expect(inked).toBeGreaterThan(1000);
});

test('bleed at the fold, or none: boxes and plates end there, and nothing else of them changes', async () => {
  const pair = tryOut(artwork(140, 130, 9), (d) => {
    addPage(d, d.pages[0].id, newId);
    setGround(d, d.pages[0].id, { ...sweep(1, 1) });
    setFacing(d, 'left');
  });
  const ending = tryOut(pair, (d) => setEndAtFold(d, true));
  expect(tryOut(ending, (d) => setEndAtFold(d, false))).toEqual(pair);
  await prepare(engines, pair);
  const px = DPI / 72;
  for (const i of [0, 1]) {
    const [all, cut] = [await platesOf(engines, pair, DPI, i), await platesOf(engines, ending, DPI, i)];
    for (const [ink, plate] of all) {
      const short = cut.get(ink)!;
      expect([short.width, short.height]).toEqual([149 * px, 148 * px]);
      expect(plate.width).toBe(158 * px);
      let worst = 0;
      for (let y = 0; y < short.height; y++)
        for (let x = 0; x < short.width; x++)
          worst = Math.max(
            worst,
            Math.abs(short.data[y * short.width + x] - plate.data[y * plate.width + x + i * 9 * px]),
          );
      expect([ink, worst]).toEqual([ink, 0]);
    }
  }
  const pdf = await pdfOf(engines, ending);
  expect(await checkX4(pdf)).toEqual([]);
  const theirs = separate(pdf, DPI);
  for (const i of [0, 1])
    expect(faults(await platesOf(engines, ending, DPI, i), theirs[i], `page ${i + 1}`)).toEqual([]);
  const info = execFileSync('pdfinfo', ['-box', '-l', '2', '-'], { input: pdf, encoding: 'utf8' });
  const [left, right] = ['BleedBox', 'TrimBox'].map((box) =>
    [...info.matchAll(new RegExp(`${box}:\\s+([\\d.-]+)\\s+([\\d.-]+)\\s+([\\d.-]+)`, 'g'))].map((m) =>
      m.slice(1).map(Number),
    ),
  );
  // On the left page bleed and trim end together on the right, on the right page they begin together on the left.
  expect(left[0][2]).toBeCloseTo(right[0][2], 1);
  expect(left[1][0]).toBeCloseTo(right[1][0], 1);
  expect(left[1][2] - right[1][2]).toBeCloseTo(9, 1);
  expect(right[0][0] - left[0][0]).toBeCloseTo(9, 1);
  // Marks stand outside, and nothing of the page reaches under them at the fold.
  const marked = separate(await pdfOf(engines, ending, { marks: true }), DPI);
  expect(marked).toHaveLength(2);
});
