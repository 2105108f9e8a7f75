import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { checkDesign } from '@/core/check/check';
import { copyNodes, parseClip, pasteClip } from '@/core/edit/clip';
import { replaceFace } from '@/core/edit/faces';
import { tryOut } from '@/core/edit/history';
import { prepare, type Engines } from '@/core/engines';
import { IDENTITY } from '@/core/geometry/matrix';
import { readFaces } from '@/core/input/font/read';
import { layoutOf } from '@/core/derive/layout';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { ownFaceId, type OwnFace } from '@/core/model/faceSchema';
import { assetName } from '@/core/file/assets';
import type { Design, NodeOf, Run } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { salvageDesign } from '@/core/model/salvage';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { FONT_FILES, fontFile, heavyFont, withEmbedding } from '../support/fontFiles';
import { separate } from '../support/ghostscript';
import { shopWith } from '../support/pictures';
import { pdfOf, platesOf } from '../support/press';
import { words as wordsIn } from '../support/qpdf';
import { cmyk, making } from '../support/sample';

const DPI = 300;
const files = new Map<string, Uint8Array>();
let engines: Engines;
const faces: Record<string, OwnFace> = {};
beforeAll(async () => {
  engines = await shopWith(files);
  const bring = async (key: string, bytes: Uint8Array) => {
    const [face] = await readFaces(bytes, engines.env);
    files.set(face.facts.file, face.bytes);
    faces[key] = face.facts;
  };
  for (const [key, name] of Object.entries(FONT_FILES)) await bring(key, fontFile(name));
  await bring('kept', withEmbedding(fontFile('TTF/SourceCodePro-Black.ttf'), 2));
  await bring('whole', withEmbedding(fontFile('TTF/SourceCodePro-Medium.ttf'), 0x100));
});

/** A page with a line of words a face. */
function page(rows: readonly (readonly [string, Partial<Run>])[], own: readonly OwnFace[]): Design {
  const b = new DesignBuilder(
    newDesign('Own faces', setupOf(320, 40 * rows.length + 20, { bleed: 0 }), making),
    making,
  );
  b.place(
    0,
    rows.map(([words, change], i) =>
      b.displayText('Line', 14, 40 + i * 40, [
        { runs: [{ ...runOf(words, 26, flat(cmyk(0, 20, 90, 30))), ...change }] },
      ]),
    ),
  );
  return { ...b.done(), faces: own };
}
const fontsIn = (pdf: Uint8Array): string[] => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-faces-')), 'faces.pdf');
  writeFileSync(file, pdf);
  return execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
};

// Oracle: Ghostscript tiffsep of our PDF (tests/support/agree.ts); poppler for fonts and words.
test('TrueType, CFF and instances of variable faces are real text in the PDF, and print as on our plates', async () => {
  const used = ['ttf', 'otf', 'variable', 'variableOtf'].map((k) => faces[k]);
  const design = page(
    [
      ['Quay of lamps', { face: faces.ttf.id }],
      ['Äpfel & Ölfass', { face: faces.otf.id }],
      ['Lantern heavy', { face: faces.variable.id, axes: { wght: 850 } }],
      ['Lantern light', { face: faces.variable.id }],
      ['Boats at night', { face: faces.variableOtf.id, axes: { wght: 640 } }],
    ],
    used,
  );
  expect(verifyDesign(design)).toMatchObject({ ok: true });
  const pdf = await pdfOf(engines, design);
  const ours = await platesOf(engines, design, DPI);
  expect(faults(ours, separate(pdf, DPI)[0], 'own faces')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  const rows = fontsIn(pdf);
  expect(rows).toHaveLength(5);
  for (const row of rows) expect(row).toMatch(/CID (TrueType|Type 0C \(OT\))\s+Identity-H\s+yes yes yes/);
  expect(rows.filter((r) => r.includes('Type 0C'))).toHaveLength(2);
  for (const words of ['Quay of lamps', 'Äpfel & Ölfass', 'Lantern heavy', 'Lantern light', 'Boats at night'])
    expect(wordsIn(pdf)).toContain(words);
  // The control: at another place on the axis the plates differ.
  const lighter = tryOut(design, (d) => {
    for (const s of Object.values(d.stories)) for (const r of s.paragraphs[0].runs) if (r.axes) r.axes = { wght: 300 };
  });
  expect(faults(ours, separate(await pdfOf(engines, lighter), DPI)[0])).not.toEqual([]);
});

test('a face that may not be put into files becomes outlines, its words are still found; one that may only go whole goes whole', async () => {
  const design = page(
    [
      // Large and heavy: Ghostscript takes a little more of the edge of an outline than of a letter.
      ['Kept here', { face: faces.kept.id, size: 52 }],
      ['All of it', { face: faces.whole.id }],
    ],
    [faces.kept, faces.whole],
  );
  const pdf = await pdfOf(engines, design);
  expect(faults(await platesOf(engines, design, DPI), separate(pdf, DPI)[0], 'kept out')).toEqual([]);
  const rows = fontsIn(pdf).map((r) => r.split(/\s+/)[0]);
  // Its words are told in the letters of a face that may go.
  expect(rows).toEqual([expect.stringMatching(/^[A-Z]{6}\+Archivo-SemiBold/), 'SourceCodePro-Medium']);
  const said = wordsIn(pdf);
  expect(said).toContain('Kept here');
  expect(said).toContain('All of it');
});

test('a face that is not at hand: another stands in, as wide; nothing of the text changes; it is said, and replaced everywhere', async () => {
  const gone: OwnFace = { ...faces.ttf, file: `sha256-${'0'.repeat(64)}.ttf`, id: `own-${'0'.repeat(32)}` };
  const d = page([['Quay of lamps', { face: gone.id }]], [gone]);
  const there = page([['Quay of lamps', { face: faces.ttf.id }]], [faces.ttf]);
  const width = (x: Design) => {
    const node = x.nodes[x.pages[0].children[0]] as NodeOf<'displayText'>;
    return layoutOf(x, node, engines.fonts).lines[0].width;
  };
  const palette = await prepare(engines, d);
  await prepare(engines, there);
  expect(verifyDesign(d).ok).toBe(true);
  expect(Math.abs(width(d) / width(there) - 1)).toBeLessThan(0.03);
  const [missing] = checkDesign(d, engines.builder, palette).filter((f) => f.code === 'text.missingFace');
  expect(missing.message).toContain('Source Code Pro Bold');
  const replaced = tryOut(d, (x) => replaceFace(x, gone.id, 'bitter-700'));
  expect(Object.values(replaced.stories)[0].paragraphs[0].runs[0].face).toBe('bitter-700');
  // Once its file is there, it is had again.
  files.set(gone.file, files.get(faces.ttf.file)!);
  engines.fonts.retry([gone.id]);
  await prepare(engines, d);
  expect(width(d)).toBeCloseTo(width(there), 6);
});

test('faces go along with what is copied; a damaged one is left out of a design that is mended', () => {
  const d = page([['Quay', { face: faces.ttf.id }]], [faces.ttf, faces.otf]);
  const clip = copyNodes(d, d.pages[0], d.pages[0].children)!;
  expect(clip.faces).toEqual([faces.ttf]);
  const read = parseClip(JSON.stringify(clip));
  expect(read).toMatchObject({ ok: true, clip: { faces: [faces.ttf] } });
  const other = newDesign('Other', setupOf(300, 300), making);
  const pasted = tryOut(other, (x) => void pasteClip(x, other.pages[0].id, clip, making.newId, IDENTITY));
  expect(pasted.faces).toEqual([faces.ttf]);
  expect(verifyDesign(pasted).ok).toBe(true);
  const again = tryOut(pasted, (x) => void pasteClip(x, other.pages[0].id, clip, making.newId, IDENTITY));
  expect(again.faces).toHaveLength(1);

  expect(verifyDesign({ ...d, faces: [faces.ttf, faces.ttf] })).toMatchObject({ ok: false, what: /twice/ });
  const damaged = { ...d, faces: [{ ...faces.ttf, id: faces.otf.id }, faces.otf] };
  expect(verifyDesign(damaged)).toMatchObject({ ok: false });
  const mended = salvageDesign(damaged, newDesign('x', setupOf(10, 10), making));
  expect(mended?.design.faces).toEqual([faces.otf]);
  expect(Object.keys(mended!.design.nodes)).toHaveLength(1);
});

test('a face that would hang whoever draws it, in a file from elsewhere, is not set in: another stands in', async () => {
  const file = await assetName(heavyFont(), 'ttf');
  files.set(file, heavyFont());
  const heavy: OwnFace = { ...faces.ttf, file, id: ownFaceId(file) };
  const d = page([['Quay ☃', { face: heavy.id }]], [heavy]);
  expect(verifyDesign(d).ok).toBe(true);
  const palette = await prepare(engines, d);
  expect(engines.fonts.failures.get(heavy.id)).toMatch(/too many points/);
  expect(checkDesign(d, engines.builder, palette).map((f) => f.code)).toContain('text.missingFace');
});
