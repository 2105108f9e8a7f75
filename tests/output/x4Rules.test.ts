import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRawStream, PDFString, type PDFObject } from '@cantoo/pdf-lib';
import { demoDesigns } from '@/demo/demos';
import { asPrint, type Engines } from '@/core/engines';
import { checkX4 } from '../support/checkX4';
import { pdfOf } from '../support/press';
import { sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
let good: Uint8Array;
beforeAll(async () => {
  engines = await testEngines();
  good = await pdfOf(engines, sampleDesign(), { marks: true });
});

const N = PDFName.of;
type Break = (doc: PDFDocument) => void;
const page = (d: PDFDocument): PDFDict => d.getPage(0).node;
const info = (d: PDFDocument): PDFDict => d.context.lookup(d.context.trailerInfo.Info) as PDFDict;
const intents = (d: PDFDocument): PDFArray => d.catalog.lookup(N('OutputIntents'), PDFArray);
const intent = (d: PDFDocument): PDFDict => intents(d).lookup(0, PDFDict);
const resources = (d: PDFDocument): PDFDict => page(d).lookup(N('Resources'), PDFDict);
const part = (d: PDFDocument, key: string): PDFDict => resources(d).lookup(N(key), PDFDict);
const each = (d: PDFDocument): PDFObject[] => d.context.enumerateIndirectObjects().map(([, o]) => o);
const dicts = (d: PDFDocument): PDFDict[] => each(d).filter((o): o is PDFDict => o instanceof PDFDict);
const profile =
  (change: (icc: Uint8Array) => Uint8Array): Break =>
  (d) => {
    const icc = new Uint8Array(300);
    icc.set([0, 0, 1, 44]);
    icc.set(Buffer.from('prtrCMYK'), 12);
    intent(d).set(N('DestOutputProfile'), d.context.register(d.context.stream(change(icc), { N: 4 })));
  };
const xmp =
  (from: RegExp, to = ''): Break =>
  (d) => {
    const text = Buffer.from((d.catalog.lookup(N('Metadata')) as PDFRawStream).contents).toString('utf8');
    expect(text).toMatch(from);
    d.catalog.set(
      N('Metadata'),
      d.context.register(d.context.stream(text.replace(from, to), { Type: 'Metadata', Subtype: 'XML' })),
    );
  };
const also =
  (operators: string): Break =>
  (d) =>
    page(d).set(N('Contents'), d.context.register(d.context.stream(operators)));
const state =
  (entry: string): Break =>
  (d) =>
    part(d, 'ExtGState').set(N('Odd'), d.context.obj({ [entry]: 'Identity' }));

// Rules from memory of ISO 15930-7 (research/pdf.md, 10): each broken in one way, and found by name.
const BROKEN: readonly (readonly [string, Break, RegExp])[] = [
  ['no output intent', (d) => d.catalog.delete(N('OutputIntents')), /intent: 0/],
  ['two output intents', (d) => intents(d).push(intent(d)), /intent: 2/],
  [
    'an intent that names no condition',
    (d) => intent(d).delete(N('OutputConditionIdentifier')),
    /OutputConditionIdentifier/,
  ],
  ['no output profile', (d) => intent(d).delete(N('DestOutputProfile')), /no profile/],
  ['a profile for light', profile((i) => (i.set(Buffer.from('RGB '), 16), i)), /profile for RGB/],
  ['a profile of a screen', profile((i) => (i.set(Buffer.from('mntr'), 12), i)), /class mntr/],
  ['half a profile', profile((i) => i.subarray(0, 200)), /not whole/],
  ['Trapped unknown', (d) => info(d).set(N('Trapped'), N('Unknown')), /Trapped is Unknown/],
  ['Trapped as the XMP does not say', (d) => info(d).set(N('Trapped'), N('True')), /differs from the XMP/],
  ['no title', (d) => info(d).delete(N('Title')), /no Title/],
  ['no XMP', (d) => d.catalog.delete(N('Metadata')), /does not say PDF\/X-4/],
  [
    'packed XMP',
    (d) => (d.catalog.lookup(N('Metadata')) as PDFRawStream).dict.set(N('Filter'), d.context.obj([])),
    /is compressed/,
  ],
  ['XMP of another standard', xmp(/PDF\/X-4</, 'PDF/X-3<'), /does not say PDF\/X-4/],
  ['XMP without the day it was made', xmp(/<xmp:CreateDate>[^<]*<\/xmp:CreateDate>/), /xmp:CreateDate/],
  ['XMP without the day it was changed', xmp(/<xmp:ModifyDate>[^<]*<\/xmp:ModifyDate>/), /xmp:ModifyDate/],
  ['XMP without an id', xmp(/<xmpMM:DocumentID>[^<]*<\/xmpMM:DocumentID>/), /xmpMM:DocumentID/],
  ['XMP without a version', xmp(/<xmpMM:VersionID>[^<]*<\/xmpMM:VersionID>/), /xmpMM:VersionID/],
  ['XMP without a title', xmp(/<dc:title>.*<\/dc:title>/), /dc:title/],
  ['a font that is not in it', (d) => dicts(d).forEach((x) => x.delete(N('FontFile2'))), /not embedded/],
  ['no trim box', (d) => page(d).delete(N('TrimBox')), /TrimBox and ArtBox/],
  ['an art box beside the trim box', (d) => page(d).set(N('ArtBox'), page(d).get(N('TrimBox'))!), /TrimBox and ArtBox/],
  ['no size', (d) => page(d).delete(N('MediaBox')), /MediaBox/],
  [
    'a bleed box beyond the sheet',
    (d) => page(d).set(N('BleedBox'), d.context.obj([-900, -900, 9000, 9000])),
    /one in the other/,
  ],
  ['another unit', (d) => page(d).set(N('UserUnit'), d.context.obj(2)), /UserUnit/],
  ['an action of a page', (d) => page(d).set(N('AA'), d.context.obj({})), /actions or notes/],
  ['a note', (d) => page(d).set(N('Annots'), d.context.obj([{ Subtype: 'Text' }])), /actions or notes/],
  ['a page that blends in light', (d) => page(d).set(N('Group'), d.context.obj({ CS: 'DeviceRGB' })), /DeviceRGB/],
  ['a colour space of light', (d) => part(d, 'ColorSpace').set(N('Odd'), N('DeviceRGB')), /DeviceRGB/],
  [
    'a picture of untold light',
    (d) => {
      const image = d.context.stream('', { Subtype: 'Image', ColorSpace: 'DeviceRGB' });
      resources(d).set(N('XObject'), d.context.obj({ Odd: d.context.register(image) }));
    },
    /DeviceRGB/,
  ],
  ['a transfer curve', state('TR'), /TR in Odd/],
  ['a halftone phase', state('HTP'), /HTP in Odd/],
  ['a form', (d) => d.catalog.set(N('AcroForm'), d.context.obj({})), /a form/],
  ['a script', (d) => d.catalog.set(N('Names'), d.context.obj({ JavaScript: {} })), /a script/],
  ['colours of light in its content', also('q 1 0 0 rg Q'), /rg in page/],
  ['a state never taken back', also('q q Q'), /q without Q/],
  ['a state taken back that was not kept', also('Q'), /Q without q/],
  ['states kept too deep', also(`${'q '.repeat(40)}${'Q '.repeat(40)}`), /too deep/],
  [
    'an ink of a mix without its colour',
    (d) => {
      for (const o of each(d))
        if (o instanceof PDFArray && String(o.get(0)) === '/DeviceN')
          (d.context.lookup(o.get(4)) as PDFDict | undefined)?.delete(N('Colorants'));
    },
    /not among the Colorants/,
  ],
  [
    'one ink in two colours',
    (d) => {
      const made = (c: number) =>
        d.context.obj([
          N('Separation'),
          N('Twice'),
          N('DeviceCMYK'),
          { FunctionType: 2, Domain: [0, 1], N: 1, C0: [0, 0, 0, 0], C1: [c, 0, 0, 0] },
        ]);
      part(d, 'ColorSpace').set(N('One'), made(1));
      part(d, 'ColorSpace').set(N('Two'), made(0.5));
    },
    /two kinds of Twice/,
  ],
];

test('there are at least 25 ways to break it', () => expect(BROKEN.length).toBeGreaterThanOrEqual(25));
test.each(BROKEN)('%s is found', async (_, spoil, found) => {
  const doc = await PDFDocument.load(good, { updateMetadata: false });
  spoil(doc);
  const faults = await checkX4(await doc.save({ useObjectStreams: false, updateFieldAppearances: false }));
  expect(faults.join('\n')).toMatch(found);
});
test('what stands before, after and beside it', async () => {
  expect(await checkX4(good)).toEqual([]);
  const late = new Uint8Array([...good, ...Buffer.from('\nmore')]);
  expect(await checkX4(late)).toContainEqual(expect.stringContaining('follows its end'));
  const early = new Uint8Array([...Buffer.from('x'), ...good]);
  expect((await checkX4(early)).join()).toMatch(/no version/);
  const doc = await PDFDocument.load(good, { updateMetadata: false });
  doc.context.trailerInfo.Encrypt = doc.context.obj({ Filter: PDFString.of('x') });
  delete doc.context.trailerInfo.ID;
  expect((await checkX4(await doc.save({ useObjectStreams: false }))).join()).toMatch(/encrypted|no ID|cannot be read/);
});

// Every demo design in the full run, in each of the ways it can be handed over for a press.
test.each(
  demoDesigns()
    .slice(...(process.env.HOLVET_FULL ? [0] : [2, 4]))
    .map((d) => [d.file, d.design] as const),
)(
  '%s keeps the rules, with layers, tags, outlines, one ink, without bleed and marks',
  async (_, design) => {
    const print = asPrint(design);
    for (const options of [
      { marks: true },
      { marks: false, bleed: false },
      { marks: true, layers: true, tagged: true },
      { marks: { crop: true, registration: true, bar: true, words: true }, outlines: true },
      { marks: false, spots: 'one' as const },
      { marks: true, spreads: true, ppi: 150 },
      { marks: true, keepRgb: true },
    ])
      expect(await checkX4(await pdfOf(engines, print, options))).toEqual([]);
  },
  300_000,
);
