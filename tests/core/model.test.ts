import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { designJsonSchema } from '@/core/model/jsonSchema';
import type { Design } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { ancestry, isLocked, pageMatrix, pageOf, parentOf, topmost, withDescendants } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { demoDesigns } from '@/demo/demos';
import { sampleDesign } from '../support/sample';

const poster = () => demoDesigns()[0].design;
const id = (d: Design, name: string) => Object.values(d.nodes).find((n) => n.name === name)!.id;

/** The design as plain JSON that a test can break. */
type Loose = Record<string, unknown> & {
  nodes: Record<string, Record<string, unknown>>;
  pages: { children: string[] }[];
  swatches: Record<string, unknown>[];
  inks: Record<string, unknown>[];
  stories: Record<string, { paragraphs: { runs: Record<string, unknown>[] }[] }>;
  setup: Record<string, unknown>;
};
const broken = (change: (d: Loose) => void) => {
  const d = JSON.parse(serializeDesign(poster())) as Loose;
  change(d);
  const v = verifyDesign(d);
  return v.ok ? 'fine' : `${v.where}: ${v.what}`;
};

describe('the door of the model', () => {
  test('lets whole designs in, and gives them back as they were', () => {
    for (const d of [poster(), sampleDesign()]) {
      const v = verifyDesign(JSON.parse(serializeDesign(d)));
      expect(v.ok && serializeDesign(v.design)).toBe(serializeDesign(d));
    }
  });
  test.each<[string, (d: Loose) => void, RegExp]>([
    ['a number that is none', (d) => (d.setup.width = Number.NaN), /setup\.width/],
    ['an ink over full', (d) => (d.swatches[1].colour = { cmyk: [1.2, 0, 0, 0] }), /swatches\.1/],
    ['a key that is not ours', (d) => (d.nodes[Object.keys(d.nodes)[0]].onload = 'alert(1)'), /nodes/],
    ['an id that could be a path', (d) => (d.id = '../../etc'), /id/],
    ['a place far off', (d) => (d.nodes[Object.keys(d.nodes)[0]].transform = [1, 0, 0, 1, 1e12, 0]), /nodes/],
    ['no page', (d) => (d.pages = []), /pages/],
    ['a swatch that is gone', (d) => d.swatches.splice(1, 1), /the swatch .* is missing/],
    ['an ink that is gone', (d) => (d.inks = []), /the ink .* is missing/],
    [
      'a ramp where a colour should be',
      (d) => {
        const ramp = d.swatches.find((s) => s.kind === 'ramp')!;
        Object.values(d.stories)[0].paragraphs[0].runs[0].fill = {
          kind: 'colour',
          colour: { swatch: ramp.id, tint: 1 },
          overprint: false,
        };
      },
      /the swatch .* is missing/,
    ],
    ['a story that is gone', (d) => (d.stories = {}), /the story .* is missing/],
    ['an object on no page', (d) => d.pages[0].children.splice(0, 1), /it lies on no page/],
    [
      'an object under another id',
      (d) => {
        const [a] = d.pages[0].children;
        d.nodes.other = d.nodes[a];
        d.pages[0].children[0] = 'other';
        delete d.nodes[a];
      },
      /its id is/,
    ],
    [
      'a path cut in the middle of a curve',
      (d) => {
        const path = Object.values(d.nodes).find((n) => n.kind === 'path')!;
        (path.path as number[]).length -= 3;
      },
      /its path is broken/,
    ],
    [
      'a path that begins nowhere',
      (d) => (Object.values(d.nodes).find((n) => n.kind === 'path')!.path = [1, 5, 5]),
      /its path is broken/,
    ],
    [
      'a group in itself',
      (d) => {
        const g = d.nodes[Object.keys(d.nodes).find((k) => d.nodes[k].name === 'Rays')!];
        (g.children as string[]).push(g.id as string);
      },
      /lies in two places|ring/,
    ],
    ['two inks of one name', (d) => (d.inks[1].name = String(d.inks[0].name).toUpperCase()), /two inks are called/],
    ['too many inks', (d) => (d.inks = SPOT_LIBRARY.slice(0, 40).map((i, n) => ({ ...i, id: `i${n}` }))), /inks/],
  ])('%s is refused, and where is said', (_, change, expected) => expect(broken(change)).toMatch(expected));
  test('hostile JSON does not get through by its prototype', () => {
    const d = JSON.parse(serializeDesign(poster()).replace('"nodes":{', '"nodes":{"__proto__":{"x":1},'));
    const v = verifyDesign(d);
    expect(v.ok && serializeDesign(v.design)).toBe(serializeDesign(poster()));
    expect(({} as Record<string, unknown>).x).toBeUndefined();
    expect(verifyDesign(null).ok).toBe(false);
    expect(verifyDesign([1]).ok).toBe(false);
  });
  test('the published schema names every kind of object', () => {
    const text = JSON.stringify(designJsonSchema());
    for (const kind of ['group', 'shape', 'path', 'displayText', 'textFrame']) expect(text).toContain(`"${kind}"`);
  });
});

describe('the tree', () => {
  const d = poster();
  const page = d.pages[0];
  test('who lies in whom', () => {
    const line = ancestry(d, page, id(d, 'Ember over paper')).map((x) => d.nodes[x].name);
    expect(line).toEqual(['Lanterns', 'Lantern, middle', 'Ember over paper']);
    expect(parentOf(d, page, id(d, 'Moon'))).toBeNull();
    expect(parentOf(d, page, id(d, 'Ember over paper'))).toBe(id(d, 'Lantern, middle'));
    expect(ancestry(d, page, 'nowhere')).toEqual([]);
    expect(pageOf(d, id(d, 'Long ray'))).toBe(page);
    expect(withDescendants(d, id(d, 'Rays'))).toHaveLength(3);
  });
  test('of a selection only the topmost, in the order of the pile', () => {
    const pick = (...names: string[]) =>
      topmost(
        d,
        page,
        names.map((n) => id(d, n)),
      ).map((x) => d.nodes[x].name);
    expect(pick('Headline', 'Moon')).toEqual(['Moon', 'Headline']);
    expect(pick('Ember over paper', 'Lanterns', 'Short ray')).toEqual(['Short ray', 'Lanterns']);
    expect(topmost(d, page, [])).toEqual([]);
  });
  test('locked with its group; placed through it', () => {
    expect([isLocked(d, page, id(d, 'Night sky')), isLocked(d, page, id(d, 'Moon'))]).toEqual([true, false]);
    const s = sampleDesign();
    expect(pageMatrix(s, s.pages[0], id(s, 'Ground 0'))).toEqual([3, 0, 0, 3, 36, 36]);
  });
});
