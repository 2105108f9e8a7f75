import { brotliCompressSync, constants } from 'node:zlib';
import * as fontkit from 'fontkit';
import { readFaces } from '@/core/input/font/read';
import { FontProblem } from '@/core/input/font/problem';
import { readSfnt, writeSfnt } from '@/core/input/font/sfnt';
import { fontFormat } from '@/core/input/font/format';
import { faceSchema, type OwnFace } from '@/core/model/faceSchema';
import { openFace } from '@/core/text/face';
import { FACE_METRICS } from '@/core/text/faceMetrics';
import { FACES } from '@/core/text/faces';
import { nodeEnv } from '@/env/node';
import { meanWidth } from '@/core/text/measures';
import { standInFor } from '@/core/text/standIns';
import { collection, FONT_FILES, fontFile, heavyFont, retabled, withEmbedding } from '../support/fontFiles';
import { FULL, measured } from '../support/measured';
import { random } from '../support/random';
import { publicFolder, testEngines } from '../support/engines';

const env = nodeEnv(publicFolder);

const refusal = (bytes: Uint8Array): Promise<string> =>
  readFaces(bytes, env).then(
    () => 'opened',
    (e: unknown) => (e instanceof FontProblem ? e.message : `threw ${String(e)}`),
  );
const facts = async (name: string): Promise<OwnFace> => (await readFaces(fontFile(name), env))[0].facts;

// Outside: fontkit, another reader of fonts, says what each file holds.
test.each(Object.entries(FONT_FILES))('a face comes out of its file: %s', async (_, name) => {
  const bytes = fontFile(name);
  const [face, ...more] = await readFaces(bytes, env);
  expect(more).toEqual([]);
  expect(faceSchema.safeParse(face.facts).success).toBe(true);
  const theirs = fontkit.create(Buffer.from(face.bytes));
  const given = fontkit.create(Buffer.from(bytes));
  expect(face.facts.ascender).toBeCloseTo(given.ascent / given.unitsPerEm, 3);
  expect(face.facts.xHeight).toBeCloseTo(given.xHeight / given.unitsPerEm, 3);
  expect(face.facts.kind).toBe('mono');
  // Every advance is as it was, and the letters too.
  const ours = await openFace('x', face.bytes);
  const words = 'Quay AVATAR 123';
  expect(ours.shape(words).reduce((n, g) => n + g.advance, 0)).toBe(theirs.layout(words).advanceWidth);
  expect(theirs.numGlyphs).toBe(given.numGlyphs);
});

test('the same face in three wrappings is the same file, and has the same name', async () => {
  const ids = new Set<string>();
  for (const name of [FONT_FILES.ttf, FONT_FILES.woff]) ids.add((await facts(name)).id);
  expect(ids.size).toBe(1);
  const bold = await facts(FONT_FILES.ttf);
  expect(bold).toMatchObject({ style: 'Bold', weight: 700, italic: false });
  expect(bold.file).toMatch(/^sha256-[0-9a-f]{64}\.ttf$/);
  expect((await facts(FONT_FILES.otf)).file).toMatch(/\.otf$/);
});

test('a variable face tells its axes; an instance of it has other letters', async () => {
  const { axes } = await facts(FONT_FILES.variable);
  expect(axes).toEqual([{ tag: 'wght', name: 'Weight', min: 200, default: 200, max: 900 }]);
  const face = await openFace('v', fontFile(FONT_FILES.variable));
  const [gid] = face.shape('H').map((g) => g.gid);
  expect(face.instance({ wght: 900 }).outline(gid)).not.toEqual(face.outline(gid));
  // Beyond its end it stays at its end.
  expect(face.instance({ wght: 5000 })).toBe(face.instance({ wght: 900 }));
  expect(face.instance({ wght: 200, nope: 3 })).toBe(face);
});

test('a collection gives all its faces, each as a file of its own', async () => {
  const faces = await readFaces(collection(fontFile(FONT_FILES.ttf), fontFile('TTF/SourceCodePro-Light.ttf')), env);
  expect(faces.map((f) => f.facts.style)).toEqual(['Bold', 'Light']);
  expect(faces[0].facts.id).toBe((await facts(FONT_FILES.ttf)).id);
  expect(fontFormat(faces[1].bytes)).toBe('sfnt');
});

// OpenType 1.9, OS/2 fsType.
test.each([
  [0x0000, undefined],
  [0x0002, 'outlines'],
  [0x0004, undefined],
  [0x0008, undefined],
  [0x0006, undefined],
  [0x0100, 'whole'],
  [0x0200, 'outlines'],
])('what its maker allows, fsType %i, is kept', async (fsType, embedding) => {
  const [{ facts: f }] = await readFaces(withEmbedding(fontFile(FONT_FILES.ttf), fsType), env);
  expect(f.embedding).toBe(embedding);
});

test('tables written again have right sums', () => {
  const font = fontFile(FONT_FILES.ttf);
  const again = writeSfnt(readSfnt(font));
  const sum = (b: Uint8Array) => {
    const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
    let n = 0;
    for (let i = 0; i + 4 <= b.length; i += 4) n = (n + v.getUint32(i)) >>> 0;
    return n;
  };
  // The whole of a font sums up to this (OpenType 1.9, head.checkSumAdjustment).
  expect(sum(again)).toBe(0xb1b0afba);
  expect(fontkit.create(Buffer.from(again))).toMatchObject({ postscriptName: 'SourceCodePro-Bold' });
});

describe('what is none, or broken, is refused with a reason', () => {
  const ttf = fontFile(FONT_FILES.ttf);
  test.each<[string, () => Uint8Array, RegExp]>([
    ['a text', () => new TextEncoder().encode('Lanterns at dusk, tickets at the quay.'), /no font of a kind/],
    ['nothing', () => new Uint8Array(), /no font of a kind/],
    ['half a file', () => ttf.slice(0, ttf.length / 2), /cut off/],
    ['half a WOFF', () => fontFile(FONT_FILES.woff).slice(0, 9000), /cut off|damaged/],
    ['half a WOFF2', () => fontFile(FONT_FILES.woff2).slice(0, 9000), /damaged/],
    ['no letters for words', () => retabled(ttf, 'cmap', () => null), /cmap is missing/],
    ['pictures for letters', () => retabled(ttf, 'glyf', () => null), /pictures, not outlines/],
    ['a measure of nothing', () => retabled(ttf, 'head', (b) => b.fill(0, 18, 20)), /damaged|measure/],
    ['letters that are nowhere', () => retabled(ttf, 'loca', (b) => b.fill(0)), /no letters|damaged/],
    ['a collection of none', () => collection(), /cut off/],
  ])('%s', async (_, make, why) => {
    expect(await refusal(make())).toMatch(why);
  });

  test('one that claims to be gigantic', async () => {
    const woff2 = fontFile(FONT_FILES.woff2).slice();
    // All its bytes are a stream of nothing but one letter, some 300 MB of it.
    const bomb = brotliCompressSync(new Uint8Array(300_000_000), { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } });
    const head = woff2.slice(0, woff2.length - new DataView(woff2.buffer).getUint32(20));
    new DataView(head.buffer).setUint32(20, bomb.length);
    const at = [head.length, head.length - 1, head.length - 2, head.length - 3];
    const answers = await Promise.all(at.map((n) => refusal(new Uint8Array([...head.slice(0, n), ...bomb]))));
    expect(answers.join()).toMatch(/too large/);
    expect(answers.join()).not.toMatch(/threw|opened/);
    const woff = fontFile(FONT_FILES.woff).slice();
    new DataView(woff.buffer).setUint32(44 + 12, 0xf0000000);
    expect(await refusal(woff)).toMatch(/too large/);
  });

  test('a letter of very many points', async () => {
    expect(await refusal(heavyFont())).toMatch(/too many points/);
  });
});

// A face, or a sentence; never a throw, never a hang. The count of letters drawn is bounded, so work is counted, not
// time.
const MUTATED = FULL ? 2000 : 120;
test(`${MUTATED} broken fonts are opened, or refused with a sentence`, async () => {
  const next = random(31);
  const below = (n: number) => Math.floor(next() * n);
  const files = Object.values(FONT_FILES).map(fontFile);
  let [opened, slowest] = [0, 0];
  for (let i = 0; i < MUTATED; i++) {
    const file = files[i % files.length].slice();
    let bytes = file;
    // The tables' own heads more often than the rest.
    const at = () => below(next() < 0.4 ? Math.min(file.length, 400) : file.length);
    if (i % 5 === 0) bytes = file.slice(0, at());
    else if (i % 5 === 1) file.fill(below(2) * 255, at(), at() + 40);
    else for (let k = 0, n = 1 + below(12); k < n; k++) file[at()] = below(256);
    const from = process.cpuUsage();
    const answer = await refusal(bytes);
    const { user, system } = process.cpuUsage(from);
    slowest = Math.max(slowest, (user + system) / 1000);
    expect([i, answer.startsWith('threw')]).toEqual([i, false]);
    if (answer === 'opened') opened++;
  }
  expect(opened).toBeGreaterThan(0);
  expect(opened).toBeLessThan(MUTATED);
  // Work done, not time gone: others may be at work beside.
  expect(slowest).toBeLessThan(2000 * 2);
  measured(
    'Mutated font files',
    `${MUTATED} opened or refused, ${opened} opened; most work ${Math.round(slowest)} ms`,
    'a sentence or a face, no hang over 2 s',
    'own mutations, seeded',
  );
});

test('the table of measures says what the faces say', async () => {
  const { fonts } = await testEngines();
  await fonts.load(FACES.map((f) => f.id));
  for (const { id } of FACES) {
    const [width, xHeight] = FACE_METRICS[id];
    expect(width).toBeCloseTo(meanWidth(fonts.get(id)!), 2);
    expect(xHeight).toBeCloseTo(fonts.get(id)!.xHeight, 2);
  }
});

describe('the nearest face stands in for a missing one', () => {
  test('of a shipped family the nearest weight; of another what is most like it; else the usual', () => {
    expect(standInFor('bitter-900', undefined).face).toBe('bitter-700');
    expect(standInFor('eb-garamond-550i', undefined).face).toBe('eb-garamond-600i');
    expect(standInFor('unheard-of', undefined)).toEqual({ face: 'archivo-600', share: 1 });
  });
  test('by the measures that the design kept: a monospaced bold by one, as wide', async () => {
    const bold = await facts(FONT_FILES.ttf);
    const { face, share } = standInFor(bold.id, bold);
    expect(FACES.find((f) => f.id === face)).toMatchObject({ kind: 'mono', weight: 700, italic: false });
    expect(FACE_METRICS[face][0] * share).toBeCloseTo(bold.width, 3);
  });
});
