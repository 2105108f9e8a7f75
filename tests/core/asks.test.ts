import { askable, asksOf, begun, fillPicture, fillWords, starterOf, wordsAsked } from '@/core/edit/asks';
import { tryOut } from '@/core/edit/history';
import { checkDesign } from '@/core/check/check';
import { prepare, type Engines } from '@/core/engines';
import { layoutOf, type TextNode } from '@/core/derive/layout';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { DesignBuilder, flat } from '@/demo/builder';
import { STARTERS, starterDesign } from '@/demo/starters';
import { FORMATS } from '@/core/units/formats';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

function card(): Design {
  const b = new DesignBuilder(newDesign('Card', setupOf(240, 156), making), making);
  const blue = b.recipe('Blue', 90, 40, 0, 0);
  const red = b.recipe('Red', 0, 80, 70, 0);
  const photo = b.picture({ name: 'Glow', file: 'lantern-glow.jpg', width: 1400, height: 1400, space: 'rgb' });
  b.place(0, [
    b.shape('Sky', 'rectangle', { x: 0, y: 0, w: 240, h: 156 }, { fill: flat(blue) }),
    b.shape(
      'Picture',
      'rectangle',
      { x: 100, y: 20, w: 100, h: 100 },
      { fill: { kind: 'picture', picture: photo, overprint: false, geometry: [100, 0, 0, 100, 0, 0] } },
    ),
    b.displayText('Headline', 10, 40, [
      { align: 'middle', runs: [runOf('Lantern', 20, flat(blue), 'bitter-700')] },
      { runs: [runOf('Walk', 12, flat(red))] },
    ]),
    b.textFrame('Frame', { x: 10, y: 60, w: 80, h: 30 }, [{ runs: [runOf('Come along', 12, flat(blue))] }]),
  ]);
  return b.done();
}

test('what can be asked for: words with their names, pictures, colours by use; a starter of it, begun and filled in', async () => {
  const d = card();
  const all = askable(d);
  expect(all.map((a) => [a.kind, a.label])).toEqual([
    ['words', 'Headline'],
    ['words', 'Frame'],
    ['picture', 'Glow'],
    ['colour', 'Blue'],
    ['colour', 'Red'],
  ]);
  const starter = starterOf(d, 'Cards', all.slice(0, 3), making);
  expect(verifyDesign(starter)).toMatchObject({ ok: true });
  expect(starter).toMatchObject({ name: 'Cards', starter: true });
  expect(starter.id).not.toBe(d.id);
  const mine = begun(starter, 'Mine', making);
  expect(mine.starter).toBeUndefined();
  expect(asksOf(mine)).toEqual(all.slice(0, 3));

  const [headline, frame, photo] = asksOf(mine);
  expect(wordsAsked(mine, headline.of)).toBe('Lantern\nWalk');
  const filled = tryOut(mine, (x) => {
    fillWords(x, headline.of, 'Supper\nin the loft\nat eight');
    fillWords(x, frame.of, 'Come along, bring a spoon and a friend, and sit where there is room');
    fillPicture(x, photo.of, { name: 'Wide', file: 'harbour-water.jpg', width: 4000, height: 2000, space: 'rgb' });
  });
  expect(verifyDesign(filled)).toMatchObject({ ok: true });
  const { paragraphs } = filled.stories[headline.of];
  // Each line as the one in its place looked; more as the last.
  expect(paragraphs.map((p) => [p.align, p.runs[0].text, p.runs[0].size, p.runs[0].face])).toEqual([
    ['middle', 'Supper', 20, 'bitter-700'],
    [undefined, 'in the loft', 12, paragraphs[1].runs[0].face],
    [undefined, 'at eight', 12, paragraphs[1].runs[0].face],
  ]);
  await prepare(engines, filled);
  const node = Object.values(filled.nodes).find((n) => n.name === 'Frame') as TextNode;
  // Twice as many words in the same frame: smaller, none lost.
  expect(layoutOf(filled, node, engines.fonts).overset).toBe(0);
  expect(layoutOf(filled, node, engines.fonts).lines[0].runs[0].size).toBeLessThan(12);
  const shape = Object.values(filled.nodes).find((n) => n.name === 'Picture')!;
  // Twice as wide as it is high: all of its height, and the middle of its width.
  expect(shape).toMatchObject({ fills: [{ geometry: [200, 0, 0, 100, -50, 0] }] });
  // What is gone is asked for no more.
  const less = tryOut(filled, (x) => {
    delete x.stories[headline.of];
    x.nodes = {};
    x.pages[0].children = [];
  });
  expect(asksOf(less).map((a) => a.label)).toEqual(['Frame', 'Glow']);
});

test('the starters that ship: one for each purpose, sound, ready to print, and every question leads somewhere', async () => {
  expect(STARTERS.map((s) => s.purpose)).toEqual([
    'Poster',
    'Certificate',
    'Card',
    'Letterhead',
    'Programme',
    'Sticker',
    'Ticket',
    'Sign',
    'Label sheet',
  ]);
  for (const s of STARTERS) {
    const design = starterDesign(s, making);
    expect(verifyDesign(design)).toMatchObject({ ok: true });
    const asked =
      Object.keys({ ...s.words }).length + Object.keys({ ...s.pictures }).length + Object.keys(s.colours).length;
    expect([s.file, asksOf(design).length]).toEqual([s.file, asked]);
    expect(asked).toBeGreaterThan(2);
    const palette = await prepare(engines, design);
    expect([s.file, checkDesign(design, engines.builder, palette).map((f) => f.message)]).toEqual([s.file, []]);
  }
});

// Sources: ISO 216 (A, B), ISO 269 (C), ANSI/ASME Y14.1 (letter, tabloid), ISO/IEC 7810 (ID-1); millimetres and inches
// as published.
test('formats against their published sizes', () => {
  const published: Record<string, [number, number]> = {
    A0: [841, 1189],
    A1: [594, 841],
    A2: [420, 594],
    A3: [297, 420],
    A4: [210, 297],
    A5: [148, 210],
    A6: [105, 148],
    A7: [74, 105],
    A8: [52, 74],
    A9: [37, 52],
    A10: [26, 37],
    B0: [1000, 1414],
    B1: [707, 1000],
    B2: [500, 707],
    B3: [353, 500],
    B4: [250, 353],
    B5: [176, 250],
    B6: [125, 176],
    C3: [324, 458],
    C4: [229, 324],
    C5: [162, 229],
    C6: [114, 162],
    'US letter': [8.5, 11],
    'US tabloid': [11, 17],
    'Card ID-1': [53.98, 85.6],
  };
  for (const [name, size] of Object.entries(published)) {
    const f = FORMATS.find((x) => x.name === name)!;
    expect([name, f.width, f.height]).toEqual([name, ...size]);
  }
});
