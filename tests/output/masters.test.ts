import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { tryOut } from '@/core/edit/history';
import { masterFromPage, setGround, takeOver } from '@/core/edit/masters';
import { addPage } from '@/core/edit/pages';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Paint } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { measured } from '../support/measured';
import { pdfOf, platesOf } from '../support/press';
import { words } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 144;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `o${n++}`;

/** `pages` pages on one master of `many` stars, a headline and a gradient as its ground. */
function programme(pages: number, many: number, side = 16): Design {
  const b = new DesignBuilder(newDesign('Programme', setupOf(300, 200, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const dusk: Paint = firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: 1, y1: 1 },
    [
      { offset: 0, colour: cmyk(80, 60, 0, 0) },
      { offset: 1, colour: cmyk(0, 30, 50, 0) },
    ],
    false,
  );
  const stars = Array.from({ length: many }, (_, i) =>
    b.shape(
      `Star ${i}`,
      'star',
      { x: (i * 37) % 280, y: 20 + ((i * 53) % 120), w: side, h: side },
      { fill: flat(i % 2 ? ember : cmyk(0, 0, 80, 0), i % 4 === 1) },
    ),
  );
  const line = b.displayText('Line', 20, 180, [{ runs: [runOf('Lantern Walk', 22, flat(cmyk(0, 0, 0, 100)))] }]);
  b.place(0, [...stars, line]);
  return tryOut(b.done(), (d) => {
    masterFromPage(d, d.pages[0].id, { id: 'ordinary', name: 'Ordinary' });
    setGround(d, 'ordinary', dusk);
    let after = d.pages[0].id;
    for (let i = 1; i < pages; i++) after = addPage(d, after, newId);
  });
}

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it; poppler for the words.
test('a master and its ground on two pages, one of them with an object taken over and a ground of its own: plates agree', async () => {
  const plain = programme(2, 6, 70);
  const design = tryOut(plain, (d) => {
    const second = d.pages[1].id;
    const copy = takeOver(d, second, plain.masters![0].children[0], newId);
    d.nodes[copy].transform = [2, 0, 0, 2, 120, 60];
    setGround(d, second, flat(cmyk(20, 0, 40, 0)));
  });
  await prepare(engines, design);
  const pdf = await pdfOf(engines, design);
  const theirs = separate(pdf, DPI);
  for (const page of [0, 1])
    expect(faults(await platesOf(engines, design, DPI, page), theirs[page], `master, page ${page + 1}`)).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  expect(words(pdf).split('Lantern Walk')).toHaveLength(3);
});

test('a master is stored once: a hundred pages are hardly more than ten', async () => {
  const [ten, hundred] = [await pdfOf(engines, programme(10, 400)), await pdfOf(engines, programme(100, 400))];
  measured('PDF of 100 pages on one master / of 10', (hundred.length / ten.length).toFixed(2), '≤ 1.3', 'bytes');
  expect(hundred.length / ten.length).toBeLessThan(1.3);
});
