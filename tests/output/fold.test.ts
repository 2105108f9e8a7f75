import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { tryOut } from '@/core/edit/history';
import { addPage, movePages, setFacing } from '@/core/edit/pages';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { spreadOf } from '@/core/model/tree';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { hitAll } from '@/core/scene/hit';
import { DesignBuilder, flat } from '@/demo/builder';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { drawnBy, pictureOf, shopWith } from '../support/pictures';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';

const files = new Map<string, Uint8Array>();
const [W, H, DPI] = [200, 150, 144];
let n = 0;
const newId = () => `f${n++}`;

/** A gradient, a picture, a spot ink and words that reach over the fold, on a page of a width. */
async function across(width: number): Promise<Design> {
  const picture = await pictureOf(drawnBy('tiff32nc', { space: 'cmyk', options: ['-sCompression=lzw'] }), 'tif', files);
  const b = new DesignBuilder(newDesign('Fold', setupOf(width, H, { bleed: 0 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const sweep = firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: 300, y1: 40 },
    [
      { offset: 0, colour: cmyk(100, 0, 0, 0) },
      { offset: 1, colour: cmyk(0, 80, 100, 0) },
    ],
    false,
  );
  b.place(0, [
    b.shape('Sweep', 'rectangle', { x: 40, y: 10, w: 300, h: 40 }, { fill: sweep }),
    b.shape(
      'Picture',
      'rectangle',
      { x: 120, y: 55, w: 150, h: 60 },
      { fill: { kind: 'picture', picture: b.picture(picture), geometry: [150, 0, 0, 60, 0, 0], overprint: false } },
    ),
    b.shape('Disc', 'ellipse', { x: 150, y: 90, w: 100, h: 50 }, { fill: flat(ember, true) }),
    b.displayText('Words', 110, 145, [{ runs: [runOf('Lantern Walk at dusk', 22)] }]),
  ]);
  return b.done();
}

// The two halves against the spread drawn as one page.
test('what reaches over the fold prints on both pages as if they were one', async () => {
  const whole = await across(2 * W);
  const pair = tryOut(await across(W), (d) => {
    setFacing(d, 'left');
    addPage(d, d.pages[0].id, newId);
  });
  const shop = await shopWith(files);
  expect(verifyDesign(pair)).toMatchObject({ ok: true });
  const one = await platesOf(shop, whole, DPI);
  const halves = [await platesOf(shop, pair, DPI, 0), await platesOf(shop, pair, DPI, 1)];
  const wide = (2 * W * DPI) / 72;
  for (const [ink, plate] of one) {
    expect(plate.width).toBe(wide);
    let worst = 0;
    for (const [i, half] of halves.entries()) {
      const { width, height, data } = half.get(ink)!;
      expect(width).toBe(wide / 2);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++)
          worst = Math.max(worst, Math.abs(data[y * width + x] - plate.data[y * wide + i * width + x]));
    }
    expect([ink, worst <= 1]).toEqual([ink, true]);
  }
  // Oracle for the PDF: Ghostscript tiffsep, the rule as tests/support/agree.ts states it.
  const theirs = separate(await pdfOf(shop, pair), DPI);
  for (const page of [0, 1]) expect(faults(halves[page], theirs[page], `over the fold, page ${page + 1}`)).toEqual([]);
  // It belongs to its own page: on the other it is not met by the pointer.
  expect(hitAll(shop.builder.build(pair, pair.pages[0]), { x: 180, y: 30 }, 1)).not.toEqual([]);
  expect(hitAll(shop.builder.build(pair, pair.pages[1]), { x: 20, y: 30 }, 1)).toEqual([]);
});

test('pages pair by their order and the side of the first; alone they face none', async () => {
  const d = tryOut(await across(W), (x) => {
    let after = x.pages[0].id;
    for (let i = 0; i < 3; i++) after = addPage(x, after, newId);
  });
  const sides = (design: Design) =>
    design.pages.map((p) => {
      const s = spreadOf(design, p);
      return s && `${s.side} ${s.other ? design.pages.indexOf(s.other) : '-'}`;
    });
  expect(sides(d)).toEqual([null, null, null, null]);
  const right = tryOut(d, (x) => setFacing(x, 'right'));
  expect(sides(right)).toEqual(['right -', 'left 2', 'right 1', 'left -']);
  const left = tryOut(right, (x) => setFacing(x, 'left'));
  expect(sides(left)).toEqual(['left 1', 'right 0', 'left 3', 'right 2']);
  expect(tryOut(left, (x) => setFacing(x, null)).setup).toEqual(d.setup);
  // Moved apart, the other is no neighbour any more.
  const shop = await shopWith(files);
  const content = (design: Design, i: number) => shop.builder.build(design, design.pages[i]).root.content.length;
  await platesOf(shop, left, 36);
  expect(content(left, 1)).toBe(1);
  const moved = tryOut(left, (x) => movePages(x, [x.pages[1].id], 4));
  expect(content(moved, 3)).toBe(0);
});
