import { checkDesign } from '@/core/check/check';
import { mendFinding, mendLabel, type Mending } from '@/core/check/mends';
import type { Finding, FindingCode } from '@/core/check/types';
import { LIMIT_SETS } from '@/core/check/limits';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { record, undoEntry } from '@/core/edit/history';
import { NO_PAINT, newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design, Effect, NodeOf, Outline, Paint, Picture, Setup } from '@/core/model/schema';
import { ownFaceId, type OwnFace } from '@/core/model/faceSchema';
import { serializeDesign } from '@/core/model/serialize';
import { verifyDesign } from '@/core/model/verify';
import { prepare, type Engines } from '@/core/engines';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

type Draw = (b: DesignBuilder) => string[];
interface Case {
  readonly code: FindingCode;
  /** What is wrong, and nearly the same thing, which is not. */
  readonly wrong: Draw;
  readonly right: Draw;
  readonly setup?: Partial<Setup>;
  /** What else is changed in the design that is wrong. */
  readonly change?: (d: Design) => Design;
  /** Its mend: what it is called; absent: there is none. */
  readonly mend?: string;
}

/** A face that its maker keeps out of files. */
const keptFile = `sha256-${'a'.repeat(64)}.ttf`;
const keptFace: OwnFace = {
  id: ownFaceId(keptFile),
  file: keptFile,
  family: 'Net Loft Sans',
  style: 'Regular',
  weight: 400,
  italic: false,
  kind: 'sans',
  ascender: 0.9,
  descender: 0.2,
  capHeight: 0.7,
  xHeight: 0.5,
  width: 0.5,
  embedding: 'outlines',
};
const shadow = (blur: number): Effect => ({
  kind: 'shadow',
  paint: { kind: 'colour', colour: cmyk(0, 0, 0, 100), overprint: false },
  opacity: 0.5,
  dx: 2,
  dy: 2,
  blur,
});
const black = cmyk(0, 0, 0, 100);
const rich = cmyk(60, 40, 40, 100);
const four = cmyk(75, 68, 67, 90);
const paper = cmyk(0, 0, 0, 0);
const red = cmyk(0, 90, 90, 0);
const navy = cmyk(100, 80, 20, 30);
const box =
  (x: number, y: number, w: number, h: number, fill: Paint = flat(red), outline?: Outline) =>
  (b: DesignBuilder): string =>
    b.shape('Box', 'rectangle', { x, y, w, h }, { fill, ...(outline && { outline }) });
const words =
  (text: string, size: number, colour: Colour, x = 60, y = 60, overprint = false) =>
  (b: DesignBuilder): string =>
    b.displayText('Words', x, y, [
      { align: 'left', leading: 1, runs: [runOf(text, size, flat(colour, overprint), 'archivo-600')] },
    ]);
const all =
  (...parts: ((b: DesignBuilder) => string)[]): Draw =>
  (b) =>
    parts.map((p) => p(b));
const ground = box(-9, -9, 318, 218, flat(navy));
const line = (width: number, colour: Colour): Outline => outlineOf(flat(colour), width);
const open = [0, 60, 60, 1, 160, 60, 1, 160, 120];
const picture =
  (w: number, h: number): ((b: DesignBuilder) => string) =>
  (b) => {
    const facts: Omit<Picture, 'id'> = {
      name: 'Dusk',
      file: 'harbour-dusk.jpg',
      width: 1800,
      height: 1200,
      space: 'rgb',
    };
    const id = b.picture(facts);
    return b.shape(
      'Dusk',
      'rectangle',
      { x: 40, y: 40, w, h },
      {
        fill: { kind: 'picture', picture: id, geometry: [w, 0, 0, h, 0, 0], overprint: false } as Paint,
      },
    );
  };
const faded = (id: string, b: DesignBuilder): string => b.together(id, { opacity: 0.5 });
const limits = (change: Partial<(typeof LIMIT_SETS)[number]>) => (d: Design) => ({
  ...d,
  checks: { limits: { ...LIMIT_SETS[0], ...change } },
});

const CASES: readonly Case[] = [
  {
    code: 'bleed.missing',
    wrong: all(box(0, 40, 50, 50)),
    right: all(box(-9, 40, 59, 50)),
    mend: 'Draw it out to the bleed',
  },
  {
    code: 'words.nearTrim',
    wrong: all(words('Quay', 20, black, 3, 80)),
    right: all(words('Quay', 20, black, 12, 80)),
    mend: 'Move it in',
  },
  {
    code: 'words.tiny',
    wrong: all(words('fine print', 4, black)),
    right: all(words('fine print', 5, black)),
    mend: 'Make it larger',
  },
  {
    code: 'words.mixed',
    wrong: all(words('Quay', 6, cmyk(60, 80, 0, 0))),
    right: all(words('Quay', 6, cmyk(0, 100, 0, 0))),
    mend: 'Make it larger',
  },
  {
    code: 'words.richBlack',
    wrong: all(words('Quay', 10, rich)),
    right: all(words('Quay', 14, rich)),
    mend: 'Use black ink alone',
  },
  {
    code: 'words.free',
    wrong: all(ground, words('Quay', 5.5, paper)),
    right: all(ground, words('Quay', 6.5, paper)),
    mend: 'Make it larger',
  },
  {
    code: 'words.faint',
    wrong: all(words('Quay', 12, cmyk(0, 0, 30, 0))),
    right: all(ground, words('Quay', 12, cmyk(0, 0, 30, 0))),
  },
  {
    code: 'words.placeholder',
    wrong: all(words('Your name here', 14, black)),
    right: all(words('Ada Wick', 14, black)),
  },
  {
    code: 'line.thin',
    wrong: all(box(40, 40, 50, 50, NO_PAINT, line(0.1, black))),
    right: all(box(40, 40, 50, 50, NO_PAINT, line(0.25, black))),
    mend: 'Make it heavier',
  },
  {
    code: 'line.free',
    wrong: all(ground, box(40, 40, 50, 50, NO_PAINT, line(0.4, paper))),
    right: all(ground, box(40, 40, 50, 50, NO_PAINT, line(0.6, paper))),
    mend: 'Make it heavier',
  },
  {
    code: 'place.nearTrim',
    wrong: all(box(4, 60, 20, 20)),
    right: all(box(-9, 60, 20, 20), box(60, 60, 20, 20)),
    mend: 'Move it in',
  },
  {
    code: 'effect.coarse',
    setup: { width: 1500, height: 1500 },
    wrong: (b) => [b.together(box(100, 100, 1300, 1300)(b), { effects: [shadow(0.2)] } as never)],
    right: (b) => [b.together(box(100, 100, 1300, 1300)(b), { effects: [shadow(30)] } as never)],
  },
  {
    code: 'text.keptFace',
    wrong: (b) => [
      b.displayText('Words', 60, 60, [
        { align: 'left', leading: 1, runs: [runOf('Quay', 24, flat(black), keptFace.id)] },
      ]),
    ],
    right: all(words('Quay', 24, black)),
    change: (d) => ({ ...d, faces: [keptFace] }),
  },
  { code: 'fill.sliver', wrong: all(box(40, 40, 0.1, 90)), right: all(box(40, 40, 2, 90)) },
  {
    code: 'black.knocksOut',
    wrong: all(ground, words('Quay', 12, black)),
    right: all(ground, words('Quay', 12, black, 60, 60, true)),
    // Unless a design says otherwise small black overprints unasked.
    change: (d) => ({ ...d, plates: { smallBlack: 0 } }),
    mend: 'Let it overprint',
  },
  {
    code: 'black.mixed',
    wrong: all(box(40, 40, 50, 50, flat(four))),
    right: all(box(40, 40, 50, 50, flat(black))),
    mend: 'Use black ink alone',
  },
  {
    code: 'overprint.white',
    wrong: all(ground, box(40, 40, 50, 50, flat(paper, true))),
    right: all(ground, box(40, 40, 50, 50, flat(paper))),
    mend: 'Let it cut out',
  },
  {
    code: 'overprint.lost',
    wrong: (b) => [ground(b), faded(b.group('Together', [box(40, 40, 50, 50, flat(red, true))(b)]), b)],
    right: (b) => [ground(b), b.group('Together', [box(40, 40, 50, 50, flat(red, true))(b)])],
    mend: 'Let it cut out',
  },
  {
    code: 'overprint.unsure',
    wrong: (b) => [faded(b.group('Glass', [box(30, 30, 90, 90)(b)]), b), box(40, 40, 50, 50, flat(navy, true))(b)],
    right: (b) => [
      ground(b),
      faded(b.group('Glass', [box(30, 30, 90, 90)(b)]), b),
      box(40, 40, 50, 50, flat(navy, true))(b),
    ],
    mend: 'Let it cut out',
  },
  {
    code: 'colour.rgb',
    wrong: all(box(40, 40, 50, 50, flat({ rgb: [0.9, 0.2, 0.1] }))),
    right: all(box(40, 40, 50, 50)),
    mend: 'Give it a recipe of inks',
  },
  {
    code: 'colour.rgb',
    wrong: (b) => [box(40, 40, 50, 50, flat(b.light('Signal', '#e63219')))(b)],
    right: (b) => [box(40, 40, 50, 50, flat(b.recipe('Signal', 0, 90, 90, 0)))(b)],
    mend: 'Give it a recipe of inks',
  },
  {
    code: 'spot.many',
    wrong: (b) => SPOT_LIBRARY.slice(0, 3).map((s, i) => box(40 + 60 * i, 40, 50, 50, flat(b.spot(s)))(b)),
    right: (b) => SPOT_LIBRARY.slice(0, 2).map((s, i) => box(40 + 60 * i, 40, 50, 50, flat(b.spot(s)))(b)),
  },
  {
    code: 'ink.many',
    wrong: all(box(40, 40, 50, 50, flat(cmyk(10, 20, 30, 40)))),
    right: all(box(40, 40, 50, 50, flat(cmyk(0, 20, 30, 40)))),
    change: limits({ inks: 3 }),
  },
  {
    code: 'spot.unused',
    wrong: (b) => (b.spot(SPOT_LIBRARY[0]), [box(40, 40, 50, 50)(b)]),
    right: (b) => [box(40, 40, 50, 50, flat(b.spot(SPOT_LIBRARY[0])))(b)],
    mend: 'Take it out',
  },
  {
    code: 'spot.twice',
    wrong: (b) =>
      [SPOT_LIBRARY[0], { ...SPOT_LIBRARY[0], name: 'Ember too' }].map((s, i) =>
        box(40 + 60 * i, 40, 50, 50, flat(b.spot(s)))(b),
      ),
    right: (b) => SPOT_LIBRARY.slice(0, 2).map((s, i) => box(40 + 60 * i, 40, 50, 50, flat(b.spot(s)))(b)),
    mend: 'Make them one',
  },
  { code: 'picture.soft', wrong: all(picture(mm(220), mm(220 / 1.5))), right: all(picture(150, 100)) },
  { code: 'picture.coarse', wrong: all(picture(mm(400), mm(400 / 1.5))), right: all(picture(150, 100)) },
  { code: 'picture.fine', wrong: all(picture(60, 40)), right: all(picture(150, 100)) },
  {
    code: 'picture.stretched',
    wrong: all(picture(150, 130)),
    right: all(picture(150, 100)),
    mend: 'Give it its proportions',
  },
  { code: 'object.outside', wrong: all(box(400, 40, 50, 50)), right: all(box(260, 40, 50, 50)), mend: 'Delete it' },
  {
    code: 'object.twice',
    wrong: all(box(40, 40, 50, 50), box(40, 40, 50, 50)),
    right: all(box(40, 40, 50, 50), box(41, 47, 50, 50)),
    mend: 'Delete this one',
  },
  {
    code: 'object.unseen',
    wrong: all(box(40, 40, 50, 50, NO_PAINT)),
    right: all(box(40, 40, 50, 50, NO_PAINT, line(1, black))),
    mend: 'Delete it',
  },
  {
    code: 'frame.empty',
    wrong: (b) => [
      b.textFrame('Note', { x: 40, y: 40, w: 90, h: 40 }, [{ runs: [runOf('', 12, flat(black), 'archivo-400')] }]),
    ],
    right: (b) => [
      b.textFrame('Note', { x: 40, y: 40, w: 90, h: 40 }, [
        { runs: [runOf('Bring a light', 12, flat(black), 'archivo-400')] },
      ]),
    ],
    mend: 'Delete it',
  },
  {
    code: 'fill.open',
    wrong: (b) => [b.path('Sail', open, { fill: flat(red), outline: line(1, black) })],
    right: (b) => [b.path('Sail', [...open, 3], { fill: flat(red), outline: line(1, black) })],
    mend: 'Close the line',
  },
  {
    code: 'combination.gap',
    wrong: (b) => [
      b.combination('Sign', 'union', [box(40, 40, 50, 50)(b), box(90.4, 40, 50, 50)(b)], { fill: flat(red) }),
    ],
    right: (b) => [
      b.combination('Sign', 'union', [box(40, 40, 50, 50)(b), box(80, 40, 50, 50)(b)], { fill: flat(red) }),
    ],
    mend: 'Close the gap',
  },
  {
    code: 'size.drift',
    wrong: all(box(40, 40, 30, 30), box(90, 46, 30, 30), box(140, 53, 30, 30), box(190, 59, 30.6, 30)),
    right: all(box(40, 40, 30, 30), box(90, 46, 30, 30), box(140, 53, 30, 30), box(190, 59, 30, 30)),
    mend: 'Make it equal',
  },
  {
    code: 'place.nearly',
    wrong: all(box(40, 20, 30, 30), box(40, 60, 40, 30), box(40.6, 100, 57, 30)),
    right: all(box(40, 20, 30, 30), box(40, 60, 40, 30), box(40, 100, 57, 30)),
    mend: 'Line it up',
  },
  {
    code: 'layer.hidden',
    wrong: (b) => [layer(b, true), box(120, 40, 50, 50)(b)],
    right: (b) => [layer(b, false), box(120, 40, 50, 50)(b)],
    mend: 'Show it',
  },
  {
    code: 'page.empty',
    wrong: (b) => (b.place(1, []), [box(40, 40, 50, 50)(b)]),
    right: (b) => (b.place(1, [box(90, 40, 50, 50)(b)]), [box(40, 40, 50, 50)(b)]),
    mend: 'Delete the page',
  },
  {
    code: 'page.count',
    wrong: (b) => ([1, 2, 3, 4].forEach((i) => b.place(i, [box(90, 40, 50, 50)(b)])), [box(40, 40, 50, 50)(b)]),
    right: (b) => ([1, 2, 3].forEach((i) => b.place(i, [box(90, 40, 50, 50)(b)])), [box(40, 40, 50, 50)(b)]),
    setup: { facing: 'right' } as Partial<Setup>,
  },
  {
    code: 'paper.other',
    wrong: all(box(40, 40, 50, 50)),
    right: all(box(40, 40, 50, 50)),
    change: (d) => ({ ...d, checks: { limits: LIMIT_SETS[2] } }),
  },
];

function layer(b: DesignBuilder, hidden: boolean): string {
  const id = b.group('Prices', [box(40, 40, 50, 50)(b)]);
  b.nodes[id] = { ...(b.nodes[id] as NodeOf<'group'>), layer: true, hidden };
  return id;
}
function design(draw: Draw, setup: Partial<Setup> = {}): Design {
  const b = new DesignBuilder(newDesign('Checked', setupOf(300, 200, { bleed: 9, ...setup }), making), making);
  b.place(0, draw(b));
  return b.done();
}
async function check(d: Design): Promise<{ found: Finding[]; mending: (f: Finding, d: Design) => Mending }> {
  const palette = await prepare(engines, d);
  return {
    found: checkDesign(d, engines.builder, palette),
    mending: (f, now) => ({
      design: now,
      page: now.pages[f.page - 1],
      palette,
      fonts: engines.fonts,
      newId: engines.env.newId,
    }),
  };
}

describe.each(CASES)('$code', (c) => {
  test('is told where it is so, and not where it is nearly so; its mend silences it and changes only what it names', async () => {
    const wrong = (c.change ?? ((d: Design) => d))(design(c.wrong, c.setup));
    const right =
      c.code === 'paper.other' ? design(c.right) : (c.change ?? ((d: Design) => d))(design(c.right, c.setup));
    const v = verifyDesign(wrong);
    if (!v.ok) throw new Error(`${v.where}: ${v.what}`);
    const { found, mending } = await check(wrong);
    const mine = found.filter((f) => f.code === c.code);
    expect(mine).toHaveLength(1);
    const [f] = mine;
    expect(f.message).not.toMatch(/undefined|NaN|\[object/);
    expect(f.why.length).toBeGreaterThan(30);
    expect((await check(right)).found.map((x) => x.code)).not.toContain(c.code);
    expect(mendLabel(f, mending(f, wrong))).toBe(c.mend ?? null);
    if (!c.mend) return;
    const done = record(wrong, 'Mend', (d) => mendFinding(d, f, mending(f, wrong)))!;
    expect(verifyDesign(done.design).ok).toBe(true);
    const after = (await check(done.design)).found;
    expect(after.map((x) => x.code)).not.toContain(c.code);
    // Nothing else is found that was not before, and no other object is another.
    const before = new Set(found.map((x) => x.code));
    expect(after.map((x) => x.code).filter((x) => !before.has(x))).toEqual([]);
    const named = new Set([f.node, ...(c.code === 'combination.gap' ? partsOf(wrong, f.node!) : [])]);
    for (const [id, node] of Object.entries(wrong.nodes))
      if (!named.has(id) && c.code !== 'spot.twice') expect(done.design.nodes[id] ?? id).toBe(node);
    expect(serializeDesign(undoEntry(done.design, done.entry))).toBe(serializeDesign(wrong));
  });
});
const partsOf = (d: Design, id: string): readonly string[] => {
  const n = d.nodes[id];
  return 'children' in n ? n.children : [];
};

test('every limit that is named is one that the model takes; no set is named twice', () => {
  for (const set of LIMIT_SETS) {
    const d = { ...design(all(box(40, 40, 50, 50))), checks: { limits: set } };
    expect(verifyDesign(d).ok).toBe(true);
  }
  expect(new Set(LIMIT_SETS.map((s) => s.name)).size).toBe(LIMIT_SETS.length);
});

test('what is waived is told with its reason; other findings of the rule stay', async () => {
  const d = design(all(box(40, 40, 50, 50, flat(four)), box(120, 40, 50, 50, flat(four))));
  const [first, second] = d.pages[0].children;
  const waived = {
    ...d,
    checks: { waivers: [{ code: 'black.mixed', of: first, reason: 'The printer asked for it' }] },
  };
  expect(verifyDesign(waived).ok).toBe(true);
  const { found } = await check(waived);
  const blacks = found.filter((f) => f.code === 'black.mixed').map((f) => [f.node, f.waived]);
  expect(blacks).toEqual([
    [first, 'The printer asked for it'],
    [second, undefined],
  ]);
});
