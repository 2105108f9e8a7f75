import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { unpackDesign } from '@/core/file/archive';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Paint, Run } from '@/core/model/schema';
import type { Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { FULL, fullTest } from '../support/measured';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, linear, making, radial } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 300;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** pdffonts (poppler): every face embedded, cut down, with its letters known. Answers the faces. */
function fontsOf(pdf: Uint8Array): string[] {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'mask-')), 'words.pdf');
  writeFileSync(file, pdf);
  const rows = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
  for (const row of rows) expect(row).toMatch(/ yes yes yes /);
  return rows.map((r) => r.split(/\s+/)[0]);
}

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it.
async function same(design: Design, what: string): Promise<Uint8Array> {
  const pdf = await pdfOf(engines, design);
  const theirs = separate(pdf, DPI);
  for (const [i, page] of design.pages.entries()) {
    // What cuts by its outline is a clip, and tiffsep takes each pixel that a clip touches whole: letters come out
    // about half a pixel fatter all round, their edges in steps (looked at). Their pixels agree as the rule says; the
    // sum of their ink and single blocks of an edge are not compared.
    const clipped = page.name === 'outline';
    const found = faults(await platesOf(engines, design, DPI, i), theirs[i], `${what}, page ${i + 1}`);
    expect(found.filter((f) => !(clipped && /of ink$|a block disagrees/.test(f)))).toEqual([]);
  }
  expect(await checkX4(pdf)).toEqual([]);
  return pdf;
}

const ALL = ['archivo-800', 'bitter-500', 'alfa-slab-400', 'great-vibes-400'];
const FACES = FULL ? ALL : [ALL[0], ALL[3]];
const stops = [
  { offset: 0, colour: cmyk(0, 0, 0, 0) },
  { offset: 1, colour: cmyk(0, 0, 0, 100) },
];
const FILLS: Readonly<Record<string, Paint>> = {
  flat: flat(cmyk(0, 0, 0, 20)),
  sweep: linear(stops, [150, 0, 0, 150, 0, 0]),
  round: radial(stops, [80, 0, 0, 80, 60, -20]),
  letters: { ...(linear(stops, [1, 0, 0, 1, 0, 0]) as Extract<Paint, { kind: 'gradient' }>), eachLetter: true },
};

/** A page a way of cutting: faces down, fills across; each cell a field of two colours cut by a word. */
function masks(holder: 'group' | 'repeat' | 'window'): Design {
  const b = new DesignBuilder(newDesign(`Words that mask, ${holder}`, setupOf(560, 280, { bleed: 0 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  (['outline', 'opacity', 'light'] as const).forEach((maskMode, p) => {
    const cells = FACES.flatMap((face, j) =>
      Object.entries(FILLS).map(([name, fill], i) => {
        const [x, y] = [10 + i * 138, 10 + j * 66];
        const field = b.group(`Field ${name} ${face}`, [
          b.shape('Left', 'rectangle', { x, y, w: 66, h: 56 }, { fill: flat(ember) }),
          b.shape('Right', 'rectangle', { x: x + 66, y, w: 62, h: 56 }, { fill: flat(cmyk(80, 20, 0, 0)) }),
        ]);
        const run: Run = {
          ...runOf('QUAY', 42, fill, face),
          outline: i === 0 ? { ...outlineOf(flat(cmyk(0, 0, 0, 60)), 1), join: 'round' } : null,
        };
        const word =
          holder === 'window'
            ? b.textFrame('Word', { x, y, w: 130, h: 56 }, [{ align: 'middle', leading: 1, runs: [run] }])
            : b.displayText('Word', x, y + 46, [{ align: 'left', leading: 1, runs: [run] }]);
        b.together(word, { maskMode });
        const cell = b.group(`Cell ${name} ${face}`, [field, word]);
        return holder === 'repeat'
          ? b.repeat('Twice', { kind: 'row', count: 2, step: { x: 4, y: 7 }, about: { x: 0, y: 0 } }, [cell])
          : cell;
      }),
    );
    b.place(p, cells, maskMode);
  });
  return b.done();
}

test.each(FULL ? (['group', 'repeat', 'window'] as const) : (['repeat'] as const))(
  'words that cut by outline, opacity and light, in every face and fill: %s',
  async (holder) => {
    const pdf = await same(masks(holder), `masks of words, ${holder}`);
    // Nothing but masks uses these faces: they are in the file all the same.
    expect(fontsOf(pdf)).toHaveLength(FACES.length);
  },
  180_000,
);

test('words as operands of combinations are areas: right on the plates, no face needed', async () => {
  const b = new DesignBuilder(newDesign('Words combined', setupOf(560, 280, { bleed: 0 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  b.place(
    0,
    ALL.flatMap((face, j) =>
      (['union', 'subtract', 'intersect', 'exclude', 'divide'] as const).map((op, i) => {
        const [x, y] = [8 + i * 110, 10 + j * 66];
        return b.combination(
          op,
          op,
          [
            b.shape('Field', 'ellipse', { x, y, w: 100, h: 56 }, { fill: flat(ember) }),
            b.displayText('Word', x + 6, y + 44, [
              { align: 'left', leading: 1, runs: [runOf('WALK', 34, flat(cmyk(90, 20, 0, 0)), face)] },
            ]),
          ],
          { fill: flat(ember) },
        );
      }),
    ),
  );
  expect(fontsOf(await same(b.done(), 'words combined'))).toEqual([]);
}, 180_000);

fullTest(
  'the design that showed other letters shows its own',
  async () => {
    const opened = unpackDesign(new Uint8Array(readFileSync('tests/data/mask-words.holvet')));
    if (!opened.ok) throw new Error(opened.code);
    const pdf = await same(opened.design, 'mask words');
    expect(fontsOf(pdf).length).toBeGreaterThan(0);
  },
  120_000,
);

test('a second build says the same of faces and overset words as the first', () => {
  const b = new DesignBuilder(newDesign('Twice', setupOf(400, 200, { bleed: 0 }), making), making);
  const field = b.shape('Field', 'rectangle', { x: 0, y: 0, w: 200, h: 100 }, { fill: flat(cmyk(80, 0, 0, 0)) });
  const word = b.textFrame('Word', { x: 0, y: 0, w: 60, h: 30 }, [
    {
      align: 'left',
      leading: 1,
      runs: [runOf('far too many words for so small a frame', 30, FILLS.flat, 'no-such-face')],
    },
  ]);
  b.together(word, { maskMode: 'light' });
  const outlined = b.displayText('Outlined', 0, 150, [
    { align: 'left', leading: 1, runs: [runOf('walk', 30, FILLS.flat, 'nor-this-one')] },
  ]);
  b.together(outlined, { maskMode: 'outline' });
  const operand = b.displayText('Operand', 220, 100, [
    { align: 'left', leading: 1, runs: [runOf('walk', 30, FILLS.flat, 'nor-that-one')] },
  ]);
  b.place(0, [
    b.group('Masked', [field, word]),
    b.group('Cut', [b.shape('Other', 'rectangle', { x: 0, y: 110, w: 200, h: 60 }, { fill: FILLS.flat }), outlined]),
    b.combination('Both', 'union', [b.shape('Third', 'ellipse', { x: 210, y: 60, w: 80, h: 60 }, {}), operand], {
      fill: FILLS.flat,
    }),
  ]);
  const design = b.done();
  const said = () => {
    const { missingFaces, overset, unsure } = engines.builder.build(design, design.pages[0]).root.findings;
    return { missingFaces, overset, unsure };
  };
  const first = said();
  expect(first.missingFaces.toSorted()).toEqual(['no-such-face', 'nor-that-one', 'nor-this-one']);
  expect(first.overset).toEqual([{ node: word, characters: expect.any(Number) }]);
  expect(said()).toEqual(first);
});
