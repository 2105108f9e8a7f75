import { EDGE_INKS } from '@/core/edit/offsetShape';
import { tryOut } from '@/core/edit/history';
import { refit } from '@/core/edit/refit';
import { colourPaint } from '@/core/model/defaults';
import { mapPaints } from '@/core/model/paints';
import type { Design } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { mm } from '@/core/units/length';
import { demoDesigns } from '@/demo/demos';
import { faults } from '../support/faults';
import { withoutGrain } from '../support/grain';
import { separate } from '../support/ghostscript';
import { FULL } from '../support/measured';
import { pdfOf, platesOf } from '../support/press';
import { shopWith } from '../support/pictures';
import { making } from '../support/sample';

/** Of the design as it was; what is made smaller is looked at as much more closely. */
const DPI = 220;
/** Those that take less than a few seconds; the others in the full run. */
const LIGHT = ['supper-ticket', 'guild-mark', 'lantern-stickers', 'stall-card'];
let shop: Engines;
beforeAll(async () => {
  shop = await shopWith(new Map());
});

const FORMATS = [
  { name: 'A5', width: mm(148), height: mm(210) },
  { name: 'A4 across', width: mm(297), height: mm(210) },
  { name: 'Card', width: mm(85), height: mm(55) },
  { name: 'Square', width: mm(150), height: mm(150) },
  { name: 'Strip', width: mm(70), height: mm(280) },
];
const CASES = demoDesigns()
  .filter(({ file, design }) => (FULL || LIGHT.includes(file)) && design.setup.medium === 'print')
  .flatMap(({ file, design }) => FORMATS.map((to) => [`${file} as ${to.name}`, design, to] as const));

/**
 * Programs make pictures smaller each in its way: they are compared where their dots meet, in
 * tests/output/pictures.test.ts.
 */
const withoutPictures = (d: Design): Design =>
  tryOut(d, (x) =>
    mapPaints(x as Design, (p) =>
      p.kind === 'picture' ? colourPaint({ cmyk: [0.5, 0.2, 0.1, 0.1] }, p.overprint) : p,
    ),
  );

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it. In CI one of them.
test.each(CASES.filter((_, i) => FULL || i === 18))(
  '%s: the plates of the fitted page agree',
  async (name, design, to) => {
    const made = withoutGrain(withoutPictures(refit(design, design.pages[0].id, to, shop.fonts, making)));
    await prepare(shop, made);
    const k = Math.min(to.width / design.setup.width, to.height / design.setup.height);
    const dpi = Math.round(DPI / Math.min(1, k));
    const ours = await platesOf(shop, made, dpi);
    // A line of a quarter of a millimetre: that program draws it bolder, and there is nothing else on its plate.
    const theirs = separate(await pdfOf(shop, made), dpi)[0];
    for (const plates of [ours, theirs]) plates.delete(EDGE_INKS.cutLine.name);
    expect(faults(ours, theirs, name)).toEqual([]);
  },
);
