import { execFileSync } from 'node:child_process';
import { deflateSync } from 'node:zlib';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { asPrint, prepare, type Engines } from '@/core/engines';
import { readFacts, type FactsRead } from '@/core/input/pdf/facts';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { usedChannels } from '@/core/scene/used';
import { DesignBuilder, flat } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { answerTo, remarksOn, type PressAnswer, type PressKind, type Told } from '@/press/answer';
import { askPress } from '@/press/host';
import { random as generator } from '../support/random';
import { measured, FULL, fullTest } from '../support/measured';
import { pdfOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  execFileSync('node', ['scripts/build-press.mjs']);
}, 60_000);

/** A job that every press with a plate for it takes: solids, words, a line. */
function job(draw: (b: DesignBuilder) => string[] = () => [], bleed = 9): Design {
  const b = new DesignBuilder(newDesign('Job', setupOf(200, 120, { bleed }), making), making);
  b.place(0, [
    b.shape(
      'Ground',
      'rectangle',
      { x: -bleed, y: -bleed, w: 200 + 2 * bleed, h: 120 + 2 * bleed },
      { fill: flat(cmyk(0, 0, 0, 30)) },
    ),
    b.displayText('Words', 20, 60, [
      { align: 'left', leading: 1, runs: [runOf('Lantern Walk', 20, flat(cmyk(0, 0, 0, 100)), 'archivo-800')] },
    ]),
    ...draw(b),
  ]);
  return b.done();
}
async function remarks(pdf: Uint8Array, kind: PressKind): Promise<string[]> {
  const read = await readFacts(pdf);
  if (!read.ok) return [read.message];
  return remarksOn(read.facts, kind)
    .filter((r) => r.refuses)
    .map((r) => r.code);
}
async function asked(pdf: Uint8Array, kind: PressKind, limits?: { ms: number; megabytes: number }): Promise<Told[]> {
  const told: Told[] = [];
  for await (const t of askPress(pdf, kind, new AbortController().signal, limits)) told.push(t);
  return told;
}

describe('what is right is taken', () => {
  test.each(['coated', 'digital', 'screen'] as const)('by %s', async (kind) => {
    expect(await remarks(await pdfOf(engines, job(), { marks: true }), kind)).toEqual([]);
  });

  test('a demo design: told page by page, answered with proofs, boxes, inks and faces as we count them', async () => {
    const design = asPrint(demoDesigns().find((d) => d.file.includes('ticket'))!.design);
    const palette = await prepare(engines, design);
    const told = await asked(await pdfOf(engines, design, { marks: true }), 'coated');
    expect(told.slice(0, -1).every((t) => 'step' in t)).toBe(true);
    const answer = (told.at(-1) as { answer: PressAnswer }).answer;
    expect(answer.remarks.filter((r) => r.refuses)).toEqual([]);
    expect(answer.taken).toBe(true);
    const ours = design.pages.flatMap((p) => usedChannels(engines.builder.build(design, p), palette));
    expect([...answer.inks].sort()).toEqual([...new Set(ours.map((c) => palette.channels[c]))].sort());
    expect(answer.pages).toHaveLength(design.pages.length);
    for (const page of answer.pages) {
      expect(page.width).toBeCloseTo(design.setup.width, 2);
      expect(page.bleed).toBeCloseTo(design.setup.bleed, 2);
      expect(Buffer.from(page.proof!, 'base64').subarray(1, 4).toString()).toBe('PNG');
    }
  }, 60_000);
});

type Spoil = (doc: PDFDocument) => void | Promise<void>;
const page = (doc: PDFDocument): PDFDict => doc.getPage(0).node;
const N = PDFName.of;
const numbers = (doc: PDFDocument, ...n: number[]): PDFObject => doc.context.obj(n);
/** Puts operators behind all that a page has. */
const also = (doc: PDFDocument, operators: string) => {
  const stream = doc.context.register(doc.context.stream(operators));
  const old = page(doc).get(N('Contents'))!;
  page(doc).set(N('Contents'), doc.context.obj([old, stream]));
};
const fontsOf = (doc: PDFDocument): PDFDict[] =>
  doc.context.enumerateIndirectObjects().flatMap(([, o]) => (o instanceof PDFDict && o.has(N('FontFile2')) ? [o] : []));
const xmp = (doc: PDFDocument, from: string, to: string) => {
  const stream = doc.catalog.lookup(N('Metadata')) as PDFRawStream;
  const text = Buffer.from(stream.contents).toString('utf8').replace(from, to);
  doc.catalog.set(N('Metadata'), doc.context.register(doc.context.stream(text, { Type: 'Metadata', Subtype: 'XML' })));
};

// Each spoiled in one way; refused for that and for nothing else.
const SPOILED: readonly (readonly [what: string, kind: PressKind, spoil: Spoil, codes: readonly string[]])[] = [
  ['says it is PDF/X-1a', 'coated', (d) => xmp(d, 'PDF/X-4<', 'PDF/X-1a<'), ['standard']],
  [
    'says nothing of what it is',
    'coated',
    (d) => {
      xmp(d, 'GTS_PDFXVersion>PDF/X-4<', 'Other>x<');
      (d.context.lookup(d.context.trailerInfo.Info) as PDFDict).delete(N('GTS_PDFXVersion'));
    },
    ['standard'],
  ],
  ['no output intent', 'coated', (d) => d.catalog.delete(N('OutputIntents')) as unknown as void, ['intent']],
  [
    'a profile for light',
    'coated',
    (d) => {
      const intent = (d.catalog.lookup(N('OutputIntents')) as PDFArray).lookup(0) as PDFDict;
      const icc = new Uint8Array(200);
      icc.set(Buffer.from('RGB '), 16);
      intent.set(N('DestOutputProfile'), d.context.register(d.context.stream(icc, { N: 3 })));
    },
    ['intent.space'],
  ],
  ['no trim box', 'coated', (d) => void page(d).delete(N('TrimBox')), ['trim']],
  ['no trim box', 'screen', (d) => void page(d).delete(N('TrimBox')), ['trim']],
  [
    'cut outside of its bleed',
    'screen',
    (d) => void page(d).set(N('TrimBox'), numbers(d, 0, 0, 500, 500)),
    ['boxes', 'bleed'],
  ],
  [
    'bleeds beyond its sheet',
    'screen',
    (d) => void page(d).set(N('MediaBox'), numbers(d, 60, 60, 220, 150)),
    ['boxes'],
  ],
  ['no bleed', 'coated', (d) => void page(d).set(N('BleedBox'), page(d).get(N('TrimBox'))!), ['bleed']],
  ['no bleed box at all', 'digital', (d) => void page(d).delete(N('BleedBox')), ['bleed']],
  [
    'too little bleed on one side',
    'coated',
    (d) => {
      const [x0, y0, x1, y1] = (page(d).lookup(N('BleedBox')) as PDFArray)
        .asArray()
        .map((n) => (n as PDFNumber).asNumber());
      page(d).set(N('BleedBox'), numbers(d, x0 + 2, y0, x1, y1));
    },
    ['bleed'],
  ],
  [
    'larger than the sheet',
    'digital',
    (d) => {
      page(d).set(N('MediaBox'), numbers(d, 0, 0, 2000, 1000));
      page(d).set(N('BleedBox'), numbers(d, 0, 0, 2000, 1000));
      page(d).set(N('TrimBox'), numbers(d, 10, 10, 1990, 990));
    },
    ['sheet'],
  ],
  ['cut to nothing', 'screen', (d) => void page(d).set(N('TrimBox'), numbers(d, 60, 60, 60, 60)), ['trim.empty']],
  ['a face that is not in it', 'coated', (d) => fontsOf(d).forEach((f) => f.delete(N('FontFile2'))), ['font']],
  [
    'a script',
    'coated',
    (d) => void d.catalog.set(N('OpenAction'), d.context.obj({ S: 'JavaScript', JS: PDFString.of('x') })),
    ['acts'],
  ],
  ['form fields', 'digital', (d) => void d.catalog.set(N('AcroForm'), d.context.obj({ Fields: [] })), ['acts']],
  [
    'a link',
    'screen',
    (d) => void page(d).set(N('Annots'), d.context.obj([{ Subtype: 'Link', Rect: [0, 0, 9, 9] }])),
    ['acts'],
  ],
  [
    'an attached file',
    'coated',
    (d) => void d.catalog.set(N('Names'), d.context.obj({ EmbeddedFiles: { Names: [] } })),
    ['acts'],
  ],
  ['colours of light that say not which', 'coated', (d) => also(d, 'q 1 0 0 rg 90 90 20 20 re f Q'), ['rgb']],
  ['the same in digital', 'digital', (d) => also(d, 'q 0 0 1 RG 90 90 m 120 120 l S Q'), ['rgb']],
  ['a hairline', 'coated', (d) => also(d, 'q 0.05 w 0 0 0 1 K 90 90 m 120 120 l S Q'), ['line']],
  ['a line too thin for a mesh', 'screen', (d) => also(d, 'q 0.3 w 0 0 0 1 K 90 90 m 120 120 l S Q'), ['line']],
  ['white that overprints', 'coated', (d) => also(d, 'q /Op gs 0 0 0 0 k 90 90 20 20 re f Q'), ['white']],
  [
    'a coarse picture',
    'coated',
    (d) => {
      const image = d.context.register(
        d.context.stream(new Uint8Array(16), {
          Type: 'XObject',
          Subtype: 'Image',
          Width: 4,
          Height: 4,
          BitsPerComponent: 8,
          ColorSpace: 'DeviceGray',
        }),
      );
      const resources = page(d).lookup(N('Resources')) as PDFDict;
      resources.set(N('XObject'), d.context.obj({ Coarse: image }));
      also(d, 'q 100 0 0 100 70 70 cm /Coarse Do Q');
    },
    ['picture'],
  ],
  ['a picture that is not there', 'coated', (d) => also(d, 'q 9 0 0 9 90 90 cm /Gone Do Q'), ['content']],
  ['a state that is not there', 'coated', (d) => also(d, 'q /Gone gs Q'), ['content']],
  ['a state taken back too often', 'coated', (d) => also(d, 'Q Q'), ['content']],
  ['a state never taken back', 'coated', (d) => also(d, 'q q'), ['content']],
  ['operators that are none', 'coated', (d) => also(d, '1 2 dance'), ['content']],
  ['a second plate', 'screen', (d) => also(d, 'q 0 1 0 0 k 90 90 20 20 re f Q'), ['plates']],
  [
    'no size',
    'screen',
    (d) => {
      page(d).delete(N('MediaBox'));
    },
    ['media'],
  ],
];

describe('what is spoiled is refused for the right reason', () => {
  test.each(SPOILED)('%s, at %s', async (_, kind, spoil, codes) => {
    const doc = await PDFDocument.load(await pdfOf(engines, job(), { marks: true }), { updateMetadata: false });
    await spoil(doc);
    expect(await remarks(await doc.save({ useObjectStreams: false }), kind)).toEqual(codes);
  });

  test('files that are none, locked, cut off, without pages', async () => {
    const whole = await pdfOf(engines, job());
    const first = async (bytes: Uint8Array) => (await remarks(bytes, 'coated'))[0];
    expect(await first(new TextEncoder().encode('<html>'))).toMatch(/not a PDF/);
    expect(await first(whole.subarray(0, 300))).toMatch(/damaged|no pages/);
    const locked = await PDFDocument.load(whole, { updateMetadata: false });
    locked.context.trailerInfo.Encrypt = locked.context.obj({ Filter: 'Standard' });
    expect(await first(await locked.save({ useObjectStreams: false }))).toMatch(/password/);
    const empty = await PDFDocument.create();
    empty.catalog.lookup(N('Pages'), PDFDict).set(N('Kids'), empty.context.obj([]));
    expect(await first(await empty.save({ addDefaultPage: false }))).toMatch(/no pages/);
  });

  test('jobs of ours that ask for what a press has not', async () => {
    const spot = (i: number) => (b: DesignBuilder) => [
      b.shape('Spot', 'rectangle', { x: 90, y: 10, w: 20, h: 20 }, { fill: flat(b.spot(SPOT_LIBRARY[i])) }),
    ];
    expect(await remarks(await pdfOf(engines, job(spot(0))), 'digital')).toEqual(['spots', 'plates'].slice(0, 1));
    // Small letters are no reason: they are told after it.
    const small = job((b) => [
      ...spot(0)(b),
      b.displayText('Price', 20, 50, [{ align: 'left', leading: 1, runs: [runOf('One', 3)] }]),
    ]);
    const read = await readFacts(await pdfOf(engines, small));
    if (!read.ok) throw new Error(read.message);
    expect(answerTo(read.facts, 'digital').remarks.map((r) => r.code)).toEqual(['spots', 'letters']);
    const three = job((b) => [0, 5, 9].flatMap((i) => spot(i)(b)));
    const many = job((b) => [
      ...[0, 5, 9].flatMap((i) => spot(i)(b)),
      b.shape('All', 'rectangle', { x: 20, y: 10, w: 20, h: 20 }, { fill: flat(cmyk(50, 50, 50, 0)) }),
    ]);
    expect(await remarks(await pdfOf(engines, three), 'coated')).toEqual([]);
    expect(await remarks(await pdfOf(engines, many), 'coated')).toEqual(['plates']);
    expect(await remarks(await pdfOf(engines, many, { spots: 'one' }), 'screen')).toEqual([]);
    const thin = job((b) => [
      b.shape(
        'Thin',
        'rectangle',
        { x: 90, y: 10, w: 20, h: 20 },
        { outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 0.1) },
      ),
    ]);
    expect(await remarks(await pdfOf(engines, thin), 'coated')).toEqual(['line']);
  });

  test('a remark is pinned to its place, counted from the trim’s top left', async () => {
    const d = job((b) => [
      b.shape(
        'Thin',
        'rectangle',
        { x: 90, y: 10, w: 20, h: 30 },
        { outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 0.1) },
      ),
    ]);
    const read = (await readFacts(await pdfOf(engines, d, { marks: true }))) as Extract<FactsRead, { ok: true }>;
    const { box, page: n } = remarksOn(read.facts, 'coated')[0];
    expect(n).toBe(1);
    expect(box!.x0).toBeCloseTo(89.95, 1);
    expect(box!.y0).toBeCloseTo(9.95, 1);
    expect(box!.x1).toBeCloseTo(110.05, 1);
    expect(box!.y1).toBeCloseTo(40.05, 1);
  });
});

describe('hostile files', () => {
  test('a form that draws itself, and forms nested without end, are read to an end', async () => {
    const doc = await PDFDocument.load(await pdfOf(engines, job()), { updateMetadata: false });
    const ref = doc.context.nextRef();
    const form = doc.context.stream('/Self Do /Self Do', { Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 9, 9] });
    form.dict.set(N('Resources'), doc.context.obj({ XObject: { Self: ref } }));
    doc.context.assign(ref, form);
    (page(doc).lookup(N('Resources')) as PDFDict).set(N('XObject'), doc.context.obj({ Self: ref }));
    also(doc, '/Self Do');
    expect(await remarks(await doc.save({ useObjectStreams: false }), 'coated')).toEqual([]);
  });

  test('one that takes too long is put aside, and the next is read', async () => {
    const pdf = await pdfOf(engines, job());
    const [last] = (await asked(pdf, 'coated', { ms: 5, megabytes: 512 })).slice(-1);
    expect((last as { refused: string }).refused).toMatch(/longer than/);
    const next = await asked(pdf, 'coated');
    expect('answer' in next.at(-1)!).toBe(true);
  }, 30_000);

  test('one that takes too much memory ends its own thread alone', async () => {
    const [last] = (await asked(await pdfOf(engines, job()), 'coated', { ms: 30_000, megabytes: 8 })).slice(-1);
    expect((last as { refused: string }).refused).toMatch(/memory|sudden end/);
  }, 40_000);

  fullTest(
    'one that unpacks to far more than it is ends its own thread, and the press goes on',
    async () => {
      const whole = await pdfOf(engines, job());
      const doc = await PDFDocument.load(whole, { updateMetadata: false });
      // A thousand times as large as it is packed; outside of what a thread's own heap may hold.
      const bomb = PDFRawStream.of(
        doc.context.obj({ Filter: 'FlateDecode' }) as PDFDict,
        new Uint8Array(deflateSync(Buffer.alloc(900 * 2 ** 20, 32))),
      );
      page(doc).set(N('Contents'), doc.context.register(bomb));
      const told = await asked(await doc.save({ useObjectStreams: false }), 'coated', { ms: 60_000, megabytes: 300 });
      expect(told.at(-1)).toEqual({ refused: expect.stringMatching(/more memory/) });
      expect('answer' in (await asked(whole, 'coated')).at(-1)!).toBe(true);
    },
    120_000,
  );

  // 500 in the full run.
  test('bytes changed at random: an answer within ten seconds, every time', async () => {
    const whole = await pdfOf(engines, job(), { marks: true });
    const random = generator(20261130);
    let aside = 0;
    const files = FULL ? 500 : 3;
    for (let n = 0; n < files; n++) {
      const bytes = whole.slice();
      for (let k = 0; k < 1 + Math.floor(random() * 40); k++)
        bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      const cut = random() < 0.2 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes;
      const before = Date.now();
      const told = await asked(cut, 'coated', { ms: 10_000, megabytes: 512 });
      // Ten seconds, and what a machine with much else to do takes to end a thread and to come back.
      expect(Date.now() - before).toBeLessThan(25_000);
      const last = told.at(-1)!;
      expect('answer' in last || 'refused' in last).toBe(true);
      if ('refused' in last && /longer/.test(last.refused)) aside++;
    }
    // To be put aside is an answer; most are read to their end.
    measured(
      'press: files with bytes changed at random',
      `${aside} of ${files} put aside after 10 s`,
      'an answer within 11 s',
      'our own worker',
    );
    expect(aside).toBeLessThanOrEqual(Math.ceil(files * 0.1));
  }, 1_800_000);
});
