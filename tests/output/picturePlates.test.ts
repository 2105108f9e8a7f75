import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Matrix } from '@/core/geometry/matrix';
import type { Design, PicturePaint } from '@/core/model/schema';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { drawnBy, pictureOf, shopWith, withoutProfile } from '../support/pictures';
import { pdfOf, platesOf } from '../support/press';
import { words } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { fullTest } from '../support/measured';

/**
 * Each of a picture's pixels is two by two of the plates': programs differ in how they make pictures smaller, and in
 * the edges they cut.
 */
const DPI = 144;
const files = new Map<string, Uint8Array>();

async function both(design: Design, keepRgb = false) {
  const engines = await shopWith(files);
  return { ours: await platesOf(engines, design, DPI), pdf: await pdfOf(engines, design, { keepRgb }) };
}

const AT: Matrix = [120, 0, 0, 80, 0, 0];
const page = (name: string, w: number, h: number) =>
  new DesignBuilder(newDesign(name, setupOf(w, h, { bleed: 0 }), making), making);
const painted = (picture: string, change: Partial<PicturePaint> = {}): PicturePaint => ({
  kind: 'picture',
  picture,
  geometry: AT,
  overprint: false,
  ...change,
});

const KINDS: readonly (readonly [
  name: string,
  device: string,
  ending: string,
  space: 'rgb' | 'cmyk',
  options: readonly string[],
])[] = [
  ['JPEG grey', 'jpeggray', 'jpg', 'rgb', []],
  ['JPEG RGB', 'jpeg', 'jpg', 'rgb', []],
  ['JPEG CMYK', 'jpegcmyk', 'jpg', 'cmyk', []],
  ['JPEG CMYK bare', 'jpegcmyk', 'jpg', 'cmyk', []],
  ['PNG 1 bit', 'pngmonod', 'png', 'rgb', []],
  ['PNG grey', 'pnggray', 'png', 'rgb', []],
  ['PNG palette', 'png256', 'png', 'rgb', []],
  ['PNG RGB', 'png16m', 'png', 'rgb', []],
  ['PNG alpha', 'pngalpha', 'png', 'rgb', []],
  ['TIFF RGB', 'tiff24nc', 'tif', 'rgb', ['-sCompression=lzw']],
  ['TIFF CMYK', 'tiff32nc', 'tif', 'cmyk', ['-sCompression=lzw']],
];

/** All of them in the full run; here one of each space and decoder. */
const SOME = process.env.HOLVET_FULL
  ? KINDS
  : KINDS.filter(([name]) =>
      ['JPEG grey', 'JPEG RGB', 'JPEG CMYK bare', 'PNG 1 bit', 'PNG alpha', 'TIFF CMYK'].includes(name),
    );

/** Every kind in a box and in a star, over a band of cyan. */
async function kindsPage(): Promise<Design> {
  const b = page('Kinds', 560, 8 + 98 * Math.ceil(SOME.length / 2));
  const band = flat(cmyk(60, 0, 0, 0));
  const art: string[] = [];
  for (const [i, [name, device, ending, space, options]] of SOME.entries()) {
    const at = { x: 10 + (i % 2) * 275, y: 8 + Math.floor(i / 2) * 98 };
    const paint = painted(
      b.picture(
        await pictureOf(
          name.includes('bare')
            ? withoutProfile(drawnBy(device, { space, options }))
            : drawnBy(device, { space, options }),
          ending,
          files,
          `${name}.${ending}`,
        ),
      ),
    );
    art.push(
      b.shape(`Band ${name}`, 'rectangle', { x: at.x - 4, y: at.y + 30, w: 264, h: 30 }, { fill: band }),
      b.shape(`Frame ${name}`, 'rectangle', { ...at, w: 120, h: 80 }, { fill: paint }),
      b.shape(`Star ${name}`, 'star', { x: at.x + 135, y: at.y, w: 120, h: 80 }, { fill: paint }),
    );
  }
  b.place(0, art);
  return b.done();
}

const contains = (file: Uint8Array, part: Uint8Array) => Buffer.from(file).includes(Buffer.from(part));

// Oracle: Ghostscript tiffsep by the rule of tests/support/agree.ts; the files are written by Ghostscript's encoders.
describe('pictures on our plates and on those of our PDF', () => {
  test('grey, RGB and CMYK of every format', async () => {
    const { ours, pdf } = await both(await kindsPage());
    expect(faults(ours, separate(pdf, DPI)[0], 'pictures: kinds')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
    // Inks meant for no paper that is named go in as they came.
    expect(contains(pdf, withoutProfile(drawnBy('jpegcmyk', { space: 'cmyk' })))).toBe(true);
  });

  fullTest('RGB kept and tagged', async () => {
    const { ours, pdf } = await both(await kindsPage(), true);
    // Another program separates them: within 4/255 (the plan's tolerance).
    expect(faults(ours, separate(pdf, DPI)[0], 'pictures: RGB kept', 4)).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
    // The JPEG is in the file as it came.
    expect(contains(pdf, drawnBy('jpeg'))).toBe(true);
  });

  test('tones, one ink and two, tiles and mirrors, a cut surround, letters and lines', async () => {
    const b = page('Tones', 560, 400);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const kelp = b.spot(SPOT_LIBRARY[1]);
    const rgb = b.picture(await pictureOf(drawnBy('png16m'), 'png', files));
    const gray = b.picture(await pictureOf(drawnBy('pnggray'), 'png', files));
    const inks = b.picture(await pictureOf(drawnBy('tiff32nc', { space: 'cmyk' }), 'tif', files));
    const cell = (i: number) => ({ x: 10 + (i % 4) * 138, y: 10 + Math.floor(i / 4) * 98, w: 120, h: 80 });
    const small: Matrix = [40, 0, 0, 80 / 3, 5, 3];
    const tones: [string, PicturePaint][] = [
      ['Lighter', painted(rgb, { tone: { brightness: 0.2, contrast: -0.3, saturation: -0.5 } })],
      ['Levels', painted(rgb, { tone: { levels: { black: 0.1, white: 0.9, middle: 1.4 }, fade: 0.3 } })],
      ['Turned round', painted(inks, { tone: { invert: true } })],
      ['Inks toned', painted(inks, { tone: { brightness: 0.1, contrast: 0.3, saturation: 0.4 } })],
      [
        'One ink',
        painted(rgb, {
          tone: {
            inks: [
              {
                colour: ember,
                curve: [
                  [0, 0.05],
                  [0.5, 0.3],
                  [1, 1],
                ],
              },
            ],
          },
        }),
      ],
      [
        'Two inks',
        painted(gray, {
          tone: {
            inks: [
              { colour: kelp },
              {
                colour: cmyk(0, 0, 0, 100),
                curve: [
                  [0.4, 0],
                  [1, 0.8],
                ],
              },
            ],
          },
        }),
      ],
      ['One ink over all', painted(gray, { overprint: true, tone: { inks: [{ colour: ember }] } })],
      ['Cut out', painted(rgb, { tone: { surround: { tolerance: 18, soft: 6 } } })],
      ['Tiles', painted(rgb, { geometry: small, tile: 'repeat' })],
      ['Mirrors', painted(rgb, { geometry: [small[0], 8, -5, small[3], 30, 10], tile: 'mirror' })],
    ];
    b.place(0, [
      b.shape('Ground', 'rectangle', { x: 0, y: 130, w: 560, h: 40 }, { fill: flat(cmyk(60, 0, 0, 0)) }),
      ...tones.map(([name, fill], i) => b.shape(name, 'rectangle', cell(i), { fill })),
      b.shape('Line', 'ellipse', cell(10), { outline: outlineOf(painted(rgb), 16) }),
      b.displayText('Letters', 20, 380, [
        {
          align: 'left',
          leading: 1,
          runs: [runOf('Marrowick', 76, painted(rgb, { geometry: [400, 0, 0, 80, 0, -70] }), 'alfa-slab-400')],
        },
      ]),
    ]);
    const { ours, pdf } = await both(b.done());
    expect(faults(ours, separate(pdf, DPI)[0], 'pictures: tones')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
    // Real spot plates, with shades between.
    for (const ink of [SPOT_LIBRARY[0].name, SPOT_LIBRARY[1].name])
      expect(new Set(ours.get(ink)!.data).size).toBeGreaterThan(60);
    // Letters that a picture fills are still text.
    expect(words(pdf)).toContain('Marrowick');
  });
});
